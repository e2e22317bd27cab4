import { useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { finishCurves, straightCurves } from '@/core/piece/finish';
import type { SourceInput } from '@/core/piece/edits';
import { materialById } from '@/core/materials';
import { sources } from '@/core/sources';
import { shownPiece, useBench } from '@/store/bench';
import { addOnTop, finishEdit, mendFinish } from '@/store/finish';
import { Act } from '../../kit/Act';
import { Fold } from '../../kit/Fold';
import { useColours } from '../../theme';
import { Scope, ScopePlot } from '../Scope';
import { words } from '../../words';
import { CurvesPanel } from './CurvesPanel';

/** Offered coats that finish a piece, by their labels. */
const FINISHES = ['Vignette', 'Grain', 'Gradient', 'Two tones', 'Glow', 'Border'];
const offers = sources.flatMap((source) => (source.offers ?? []).map((offer) => ({ source, offer })));
const FRAME = 'edges.frame';

/** The last look at the whole piece: what is in it, curves on top of everything, and what is laid over all in one tap. */
export function FinishFacet() {
  const c = useColours();
  const piece = useBench(shownPiece);
  const [edit] = useState(finishEdit);
  if (!piece) return null;
  const curves = finishCurves(piece);
  const chosen = FINISHES.flatMap((label) => offers.filter(({ offer }) => offer.label === label));
  return (
    <View style={{ gap: 8 }}>
      <Text style={{ color: c.quiet, fontSize: 13 }}>{words.finish.onTop}</Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {chosen.map(({ source, offer }) => (
          <Act
            key={offer.label}
            onPress={() =>
              addOnTop(source.schema.parse({ kind: source.kind, ...offer.params }) as SourceInput, offer.look && { ...offer.look, name: offer.label })
            }
          >
            {offer.label}
          </Act>
        ))}
        <Act onPress={() => addOnTop({ kind: 'material', id: FRAME, seed: 1, params: {} })}>{materialById(FRAME).label}</Act>
      </View>
      <Scope mends={mendFinish} none={words.finish.noCast} />
      <Fold title={words.light.curves} begin changed={JSON.stringify(curves) !== JSON.stringify(straightCurves)}>
        <ScopePlot kind="parade" />
        <CurvesPanel values={curves} set={(key, v) => edit({ [key]: v })} straight={edit(straightCurves)} run="finish.curves" />
      </Fold>
    </View>
  );
}
