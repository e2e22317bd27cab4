import { View } from 'react-native';
import { setTreatment, treatmentOf } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { treatmentByKind } from '@/core/treatments';
import { useBench } from '@/store/bench';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';

/** Tones the material, never the photo. */
export function ToneFacet({ coat }: { coat: Coat }) {
  const { change, preview } = useBench.getState();
  const { schema } = treatmentByKind('tone');
  const neutral = schema.parse({ kind: 'tone' });
  const values = { ...neutral, ...treatmentOf(coat, 'tone') };
  const set = (key: string, v: unknown) => setTreatment(coat.id, 'tone', { ...values, [key]: v });
  return (
    <View>
      <Panel
        schema={schema}
        values={values}
        onPreview={(key, v) => preview(set(key, v))}
        onCommit={(key, v, label) => change(`Tone: ${label.toLowerCase()}`, set(key, v), `${coat.id}.tone.${key}`)}
      />
      <Act plain onPress={() => change('Tone back to neutral', setTreatment(coat.id, 'tone', neutral))}>
        Back to the material’s own tone
      </Act>
    </View>
  );
}
