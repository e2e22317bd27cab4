import { View } from 'react-native';
import { changeStep } from '@/core/piece/edits';
import { grainOf, sourceOfGrain } from '@/core/piece/grain';
import type { Coat } from '@/core/piece/schema';
import { mapStarts } from '@/core/treatments/mapStarts';
import { treatmentByKind } from '@/core/treatments';
import { useBench } from '@/store/bench';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { MaterialGrid } from '../../kit/MaterialGrid';
import { Toggle } from '../../kit/Toggle';
import { words } from '../../words';

/** What a step that reads a map needs besides its controls: the material or picture that it reads, common starts, and a look at the map. */
export function StepMap({ coat, index }: { coat: Coat; index: number }) {
  const { change } = useBench.getState();
  const values = coat.treatments[index] as Record<string, unknown> & { kind: string };
  const { schema, label } = treatmentByKind(values.kind);
  if (!('showsMap' in schema.shape)) return null;
  const set = (name: string, to: Record<string, unknown>) => change(name, changeStep(coat.id, index, to));
  const starts = mapStarts[values.kind] ?? [];
  const material = values.material as { id: string; seed: number } | undefined;
  return (
    <View>
      {values.map === 'picture' ? (
        <MaterialGrid
          size={64}
          current={sourceOfGrain(values.file ? { file: values.file } : material)}
          onChoose={(source) => {
            const { id, seed, file } = grainOf(source);
            set(words.map.choose, file ? { file, material: undefined } : { material: { id, seed, params: source.params ?? {} }, file: undefined });
          }}
        />
      ) : null}
      {starts.length > 0 ? (
        <Acts>
          {starts.map((start) => (
            <Act key={start.label} plain onPress={() => set(words.map.start(label, start.label), start.values)}>
              {start.label}
            </Act>
          ))}
        </Acts>
      ) : null}
      <Toggle
        label={words.map.show}
        help={words.map.showHelp}
        value={values.showsMap === true}
        onChange={(on) => set(words.map.show, { showsMap: on || undefined })}
      />
    </View>
  );
}
