import { router } from 'expo-router';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import { pieceSchema } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { panelEdit } from '@/store/editing';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';
import { words } from '../../words';

const allSchema = z.object({ strength: pieceSchema.shape.strength });

/** The photo's card is chosen: one strength over all coats, and the way to the first material. */
export function PhotoFacet() {
  const c = useColours();
  const piece = useBench(shownPiece);
  const { openFacet } = useBench.getState();
  if (!piece) return null;
  const all = (_key: string, v: unknown) => (p: typeof piece) => ({ ...p, strength: v as number });
  return (
    <View style={{ gap: 12 }}>
      <Text style={{ color: c.quiet }}>{words.photo.about(piece.photo.name, piece.photo.width, piece.photo.height)}</Text>
      {piece.coats.length > 0 ? (
        <Panel schema={allSchema} values={{ strength: piece.strength }} {...panelEdit(all, () => words.common.strengthOfAllCoats, 'all')} />
      ) : null}
      <Act main={piece.coats.length === 0} icon="layers-plus" onPress={() => openFacet('add')}>
        {words.common.addAMaterial}
      </Act>
      <Act plain onPress={() => router.navigate('/help')}>
        {words.common.help}
      </Act>
    </View>
  );
}
