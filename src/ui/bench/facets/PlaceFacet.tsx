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

/** A generated material is made with up to so many pixels a side. */
const FINEST = 2048;

/** How the material sits on the photo: by handles on the picture, or by figures. */
export function PlaceFacet({ coat }: { coat: Coat }) {
  const c = useColours();
  const { change } = useBench.getState();
  const corners = useLaying((s) => s.corners);
  const seeThrough = useSettings((s) => s.seeThrough);
  if (!sourceByKind(coat.source.kind as string).laid) return <Idle>This coat fills the photo; there is nothing to place.</Idle>;
  if (coat.source.kind === 'cutout' && !coat.source.file)
    return <Idle>The subject stays in its place on the photo; bring the photo in as a picture of its own to lay its subject elsewhere.</Idle>;
  const value = (key: string, v: unknown) => ({ [key]: key === 'turn' ? snapTurn(v as number) : v }) as Partial<Lay>;
  const set = (key: string, v: unknown) => setLay(coat.id, value(key, v));
  const quarter = (by: number) => change('Quarter turn', setLay(coat.id, { turn: snapTurn(coat.lay.turn + by, 0) }));
  return (
    <View>
      <Enlarged coat={coat} />
      <Panel schema={laySchema} values={coat.lay} {...panelEdit(set, stepOf('Lay'), `${coat.id}.lay`, (key, v) => placing(coat, value(key, v)))} />
      <Toggle
        label="Four corners"
        value={corners}
        help="The handles on the picture then move single corners, as if the material lay on a wall."
        onChange={(on) => useLaying.getState().set({ corners: on })}
      />
      <Toggle
        label="See through it while placing"
        value={seeThrough}
        help="It shows at part of its strength while it is moved."
        onChange={(on) => useSettings.getState().set({ seeThrough: on })}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 }}>
        <Act onPress={() => quarter(-90)}>Rotate left 90°</Act>
        <Act onPress={() => quarter(90)}>Rotate right 90°</Act>
        {coat.lay.corners ? (
          <Act plain onPress={() => change('Reset perspective', setLay(coat.id, { corners: undefined }))}>
            Reset perspective
          </Act>
        ) : null}
        <Act plain onPress={() => change('Reset position', setLay(coat.id, { corners: undefined, ...laySchema.parse({}) }))}>
          Reset position
        </Act>
      </View>
      <Text style={{ color: c.quiet }}>Drag on the picture to move it, with two fingers to scale and turn it. Arrow keys move it too.</Text>
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
  // A material has as many pixels as it is made with, however many u it is across.
  const finer = source.kind === 'material' ? NOMINAL / FINEST : 1;
  const times = enlargement(coat.lay, nominal, photo) * finer;
  if (times <= 2) return null;
  return (
    <Text role="status" style={{ color: c.accent, paddingBottom: 4 }}>
      {`Drawn ${times.toFixed(1)} times its own size, so it will look soft at 100 %; scale it down, or choose Tile to repeat it.`}
    </Text>
  );
}
