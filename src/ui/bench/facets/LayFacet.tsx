import { View } from 'react-native';
import { setLay, snapTurn } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { laySchema, type Lay } from '@/core/sources/lay';
import { sourceByKind } from '@/core/sources';
import { useBench } from '@/store/bench';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';
import { Idle } from './Idle';

/** How the material sits on the photo. Dragging on the picture moves it. */
export function LayFacet({ coat }: { coat: Coat }) {
  const { change, preview } = useBench.getState();
  if (!sourceByKind(coat.source.kind as string).laid) return <Idle>This coat covers the photo by itself; there is nothing to lay.</Idle>;
  const value = (key: string, v: unknown) => ({ [key]: key === 'turn' ? snapTurn(v as number) : v }) as Partial<Lay>;
  const quarter = (by: number) => change('Quarter turn', setLay(coat.id, { turn: snapTurn(coat.lay.turn + by, 0) }));
  return (
    <View>
      <Panel
        schema={laySchema}
        values={coat.lay}
        onPreview={(key, v) => preview(setLay(coat.id, value(key, v)))}
        onCommit={(key, v, label) => change(`Lay: ${label.toLowerCase()}`, setLay(coat.id, value(key, v)), `${coat.id}.lay.${key}`)}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 }}>
        <Act onPress={() => quarter(-90)}>Quarter turn left</Act>
        <Act onPress={() => quarter(90)}>Quarter turn right</Act>
        <Act plain onPress={() => change('Lay it afresh', setLay(coat.id, laySchema.parse({})))}>
          Lay it afresh
        </Act>
      </View>
    </View>
  );
}
