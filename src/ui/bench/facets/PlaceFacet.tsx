import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { setLay } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { enlargement, laySchema, NOMINAL, type Lay } from '@/core/lay/lay';
import { snapTurn } from '@/core/lay/laying';
import { nominalOf } from '@/core/lay/nominal';
import { sourceByKind } from '@/core/sources';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { placing, useLaying } from '@/store/laying';
import { useSettings } from '@/store/settings';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';
import { Toggle } from '../../kit/Toggle';
import { useColours } from '../../theme';
import { useViewport } from '../viewport';
import { Idle } from './Idle';
import { words } from '../../words';

/** A made material is drawn with up to so many pixels a side; with fewer where it is repeated, on faces or in perspective. */
const FINEST = 16384;
const FINEST_WHOLE = 4096;

/** How the material sits on the photo: by handles on the picture, or by figures. */
export function PlaceFacet({ coat }: { coat: Coat }) {
  const c = useColours();
  const { change } = useBench.getState();
  const corners = useLaying((s) => s.corners);
  const seeThrough = useSettings((s) => s.seeThrough);
  if (!sourceByKind(coat.source.kind as string).laid) return <Idle>{words.place.fillsThePhoto}</Idle>;
  if (coat.source.kind === 'cutout' && !coat.source.file) return <Idle>{words.place.subjectStays}</Idle>;
  const value = (key: string, v: unknown) => ({ [key]: key === 'turn' ? snapTurn(v as number) : v }) as Partial<Lay>;
  const set = (key: string, v: unknown) => setLay(coat.id, value(key, v));
  const quarter = (by: number) => change(words.common.quarterTurn, setLay(coat.id, { turn: snapTurn(coat.lay.turn + by, 0) }));
  return (
    <View>
      <Enlarged coat={coat} />
      <Panel
        schema={laySchema}
        values={coat.lay}
        {...panelEdit(set, stepOf(words.place.place), `${coat.id}.lay`, (key, v) => placing(coat, value(key, v)))}
      />
      <Toggle
        label={words.common.fourCorners}
        value={corners}
        help={words.place.cornersHelp}
        onChange={(on) => useLaying.getState().set({ corners: on })}
      />
      <Toggle
        label={words.place.seeThrough}
        value={seeThrough}
        help={words.place.seeThroughHelp}
        onChange={(on) => useSettings.getState().set({ seeThrough: on })}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 }}>
        <Act onPress={() => quarter(-90)}>{words.common.rotateLeft}</Act>
        <Act onPress={() => quarter(90)}>{words.common.rotateRight}</Act>
        {coat.lay.corners ? (
          <Act plain onPress={() => change(words.place.resetPerspective, setLay(coat.id, { corners: undefined }))}>
            {words.place.resetPerspective}
          </Act>
        ) : null}
        <Act plain onPress={() => change(words.place.resetPosition, setLay(coat.id, { corners: undefined, ...laySchema.parse({}) }))}>
          {words.place.resetPosition}
        </Act>
      </View>
      <Text style={{ color: c.quiet }}>{words.place.howTo}</Text>
    </View>
  );
}

/** Says so when pixels are drawn more than twice their size. */
function Enlarged({ coat }: { coat: Coat }) {
  const c = useColours();
  const photo = useViewport((s) => s.photo);
  const source = coat.source as { kind: string; width?: number };
  if (source.kind === 'picture' && !source.width) return null;
  const nominal = nominalOf(coat.source, photo);
  const { fit, faces, corners } = coat.lay;
  // A material has as many pixels as it is made with, however many u it is across.
  const finer = source.kind === 'material' ? NOMINAL / (fit === 'tile' || faces || corners ? FINEST_WHOLE : FINEST) : 1;
  const times = enlargement(coat.lay, nominal, photo) * finer;
  if (times <= 2) return null;
  return (
    <Text role="status" style={{ color: c.accent, paddingBottom: 4 }}>
      {(source.kind === 'picture' ? words.place.enlargedPicture : words.place.enlarged)(times.toFixed(1))}
    </Text>
  );
}
