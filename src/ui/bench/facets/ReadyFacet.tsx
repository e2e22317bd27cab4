import { useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import type { Point } from '@/core/ready/matrix';
import type { Ready } from '@/core/ready/schema';
import { balanceFields } from '@/core/treatments/balance';
import { curvesFields } from '@/core/treatments/curves';
import { colourFields } from '@/core/treatments/colour';
import { exposureFields } from '@/core/treatments/exposure';
import type { Piece } from '@/core/piece/schema';
import { monochromeFields } from '@/core/treatments/monochrome';
import { complain } from '@/store/notices';
import { automaticGains } from '@/store/scopes';
import { Scope } from '../Scope';
import { shownPiece, useBench } from '@/store/bench';
import { changeReady, readyOf, useReady } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';

const balanceSchema = z.object(balanceFields);

/** Steps of readying that are one panel each: a field of the recipe's `ready` and its schema. */
const steps = {
  balance: { field: 'whiteBalance', name: 'White balance', schema: balanceSchema },
  light: { field: 'tone', name: 'Light', schema: z.object(exposureFields) },
  colour: { field: 'colour', name: 'Colour', schema: z.object(colourFields) },
} as const;

const curvesSchema = z.object(curvesFields);
const monochromeSchema = z.object(monochromeFields);

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
      <Scope />
      {step === 'balance' ? <PickNeutral spot={(values.neutral as Point | undefined) ?? null} automatic={values.gains !== undefined} /> : null}
      <Panel
        schema={schema}
        values={values}
        onPreview={(key, v) => preview(set(key, v))}
        onCommit={(key, v, label) => change(`${name}: ${label.toLowerCase()}`, set(key, v), `ready.${step}.${key}`)}
      />
      {step === 'light' ? <Curves piece={piece} /> : null}
      {step === 'colour' ? <Monochrome piece={piece} /> : null}
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

const channels = [
  { value: 'all', label: 'All' },
  { value: 'red', label: 'Red' },
  { value: 'green', label: 'Green' },
  { value: 'blue', label: 'Blue' },
] as const;

/** Curves, one channel at a time. */
function Curves({ piece }: { piece: Piece }) {
  const [channel, setChannel] = useState<string>('all');
  const { change, preview } = useBench.getState();
  const values = { ...curvesSchema.parse({}), ...readyOf(piece).curves };
  const set = (key: string, v: unknown) => changeReady((r) => ({ ...r, curves: { ...values, [key]: v } }));
  return (
    <View>
      <Choice label="Curve of" options={channels} value={channel} onChange={setChannel} />
      <Panel
        schema={curvesSchema}
        values={values}
        only={[channel]}
        onPreview={(key, v) => preview(set(key, v))}
        onCommit={(key, v, label) => change(`Curve: ${label.toLowerCase()}`, set(key, v), `ready.curves.${key}`)}
      />
      <Act
        plain
        onPress={() =>
          change(
            'Straight curves',
            changeReady((r) => ({ ...r, curves: undefined })),
          )
        }
      >
        Straight again
      </Act>
    </View>
  );
}

/** Black and white, with the mix of channels once it is on. */
function Monochrome({ piece }: { piece: Piece }) {
  const { change, preview } = useBench.getState();
  const values = { ...monochromeSchema.parse({}), ...readyOf(piece).monochrome };
  const set = (key: string, v: unknown) => changeReady((r) => ({ ...r, monochrome: { ...values, [key]: v } }));
  return (
    <Panel
      schema={monochromeSchema}
      values={values}
      only={values.on ? undefined : ['on']}
      onPreview={(key, v) => preview(set(key, v))}
      onCommit={(key, v, label) => change(`Black and white: ${label.toLowerCase()}`, set(key, v), `ready.monochrome.${key}`)}
    />
  );
}

/** What the light is taken to be: a spot that is to be grey, or the whole picture. */
function PickNeutral({ spot, automatic }: { spot: Point | null; automatic: boolean }) {
  const c = useColours();
  const { tool, set } = useReady();
  const picking = tool === 'neutral';
  const keep = (name: string, values: object) =>
    useBench.getState().change(
      name,
      changeReady((r) => ({ ...r, whiteBalance: { ...balanceSchema.parse({ ...r.whiteBalance }), ...values } })),
    );
  const balance = async () => {
    const { piece } = useBench.getState();
    if (piece) keep('Balance by itself', { gains: await automaticGains(piece) });
  };
  const says = picking
    ? 'Tap something on the photo that should be grey.'
    : spot
      ? 'A spot of the photo is held grey.'
      : automatic
        ? 'The picture is grey on the whole.'
        : 'The light as photographed.';
  return (
    <View style={{ gap: 8, paddingBottom: 8 }}>
      <Text style={{ color: c.quiet }}>{says}</Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <Act main={picking} onPress={() => set({ tool: picking ? 'frame' : 'neutral' })}>
          {picking ? 'Stop picking' : 'Pick a grey'}
        </Act>
        <Act onPress={() => void balance().catch(complain)}>Balance by itself</Act>
        {spot || automatic ? (
          <Act plain onPress={() => keep('Forget the grey', {})}>
            Forget it
          </Act>
        ) : null}
      </View>
    </View>
  );
}
