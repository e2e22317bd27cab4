import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { removeTreatment, setTreatment, treatmentOf } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { treatmentByKind, treatments, type Treatment } from '@/core/treatments';
import { useBench } from '@/store/bench';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';
import { SERIF, useColours } from '../../theme';

/** Tones the material, never the photo: the treatments it carries, and the ones that can be added. */
export function ToneFacet({ coat }: { coat: Coat }) {
  const { change } = useBench.getState();
  const c = useColours();
  const carried = treatments.filter((t) => t.kind === 'tone' || treatmentOf(coat, t.kind));
  const others = treatments.filter((t) => !carried.includes(t));
  return (
    <View>
      {carried.map((t) => (
        <TreatmentPanel key={t.kind} coat={coat} treatment={t} />
      ))}
      {others.length > 0 ? (
        <Text role="heading" aria-level={3} style={{ fontFamily: SERIF, fontSize: 17, color: c.ink, paddingTop: 12, paddingBottom: 6 }}>
          Add to it
        </Text>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {others.map((t) => (
          <Act key={t.kind} onPress={() => change(`Add ${t.label.toLowerCase()}`, setTreatment(coat.id, t.kind, t.schema.parse({ kind: t.kind })))}>
            {t.label}
          </Act>
        ))}
      </View>
    </View>
  );
}

function TreatmentPanel({ coat, treatment }: { coat: Coat; treatment: Treatment }) {
  const { change, preview } = useBench.getState();
  const c = useColours();
  const { kind, label } = treatment;
  const { schema } = treatmentByKind(kind);
  const neutral = schema.parse({ kind });
  const values = { ...neutral, ...treatmentOf(coat, kind) };
  const set = (key: string, v: unknown) => setTreatment(coat.id, kind, { ...values, [key]: v });
  return (
    <View>
      {kind === 'tone' ? null : (
        <Text role="heading" aria-level={3} style={{ fontFamily: SERIF, fontSize: 17, color: c.ink, paddingTop: 12 }}>
          {label}
        </Text>
      )}
      <Panel
        schema={schema}
        values={values}
        onPreview={(key, v) => preview(set(key, v))}
        onCommit={(key, v, name) => change(`${label}: ${name.toLowerCase()}`, set(key, v), `${coat.id}.${kind}.${key}`)}
      />
      {kind === 'tone' ? (
        <Act plain onPress={() => change('Tone back to neutral', setTreatment(coat.id, kind, neutral))}>
          Back to the material’s own tone
        </Act>
      ) : (
        <Act plain onPress={() => change(`Take ${label.toLowerCase()} off`, removeTreatment(coat.id, kind))}>
          {`Take ${label.toLowerCase()} off`}
        </Act>
      )}
    </View>
  );
}
