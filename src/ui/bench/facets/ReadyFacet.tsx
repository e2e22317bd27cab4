import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import type { Point } from '@/core/ready/matrix';
import type { Ready } from '@/core/ready/schema';
import { balanceFields } from '@/core/treatments/balance';
import { colourFields } from '@/core/treatments/colour';
import { exposureFields } from '@/core/treatments/exposure';
import { shownPiece, useBench } from '@/store/bench';
import { changeReady, readyOf, useReady } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';

/** Steps of readying that are one panel each: a field of the recipe's `ready` and its schema. */
const steps = {
  balance: { field: 'whiteBalance', name: 'White balance', schema: z.object(balanceFields) },
  light: { field: 'tone', name: 'Light', schema: z.object(exposureFields) },
  colour: { field: 'colour', name: 'Colour', schema: z.object(colourFields) },
} as const;

/** White balance, light or colour of the photo, under every coat. */
export function ReadyFacet({ step }: { step: keyof typeof steps }) {
  const piece = useBench(shownPiece);
  const { change, preview } = useBench.getState();
  if (!piece) return null;
  const { field, name, schema } = steps[step];
  const values = { ...schema.parse({}), ...readyOf(piece)[field] } as Record<string, unknown>;
  const set = (key: string, v: unknown) => changeReady((r) => ({ ...r, [field]: { ...values, [key]: v } }) as Ready);
  return (
    <View>
      {step === 'balance' ? <PickNeutral spot={(values.neutral as Point | undefined) ?? null} /> : null}
      <Panel
        schema={schema}
        values={values}
        onPreview={(key, v) => preview(set(key, v))}
        onCommit={(key, v, label) => change(`${name}: ${label.toLowerCase()}`, set(key, v), `ready.${step}.${key}`)}
      />
      <Act
        plain
        onPress={() =>
          change(
            `${name} as photographed`,
            changeReady((r) => ({ ...r, [field]: undefined })),
          )
        }
      >
        As photographed
      </Act>
    </View>
  );
}

/** A spot that is to be grey, picked on the photo. */
function PickNeutral({ spot }: { spot: Point | null }) {
  const c = useColours();
  const { tool, set } = useReady();
  const picking = tool === 'neutral';
  return (
    <View style={{ gap: 8, paddingBottom: 8 }}>
      <Text style={{ color: c.quiet }}>
        {picking ? 'Tap something on the photo that should be grey.' : spot ? 'A spot of the photo is held grey.' : 'The light as photographed.'}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act main={picking} onPress={() => set({ tool: picking ? 'frame' : 'neutral' })}>
          {picking ? 'Stop picking' : 'Pick a grey'}
        </Act>
        {spot ? (
          <Act
            plain
            onPress={() =>
              useBench.getState().change(
                'Forget the grey',
                changeReady((r) => ({ ...r, whiteBalance: { ...r.whiteBalance, neutral: undefined } as Ready['whiteBalance'] })),
              )
            }
          >
            Forget it
          </Act>
        ) : null}
      </View>
    </View>
  );
}
