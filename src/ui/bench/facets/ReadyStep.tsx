import type { ReactNode } from 'react';
import * as z from 'zod';
import { lensFields } from '@/core/ready/lens';
import type { Ready } from '@/core/ready/schema';
import { balanceFields } from '@/core/treatments/balance';
import { colourFields } from '@/core/treatments/colour';
import { evenFields } from '@/core/treatments/even';
import { exposureFields } from '@/core/treatments/exposure';
import { fringeFields } from '@/core/treatments/fringe';
import { levelsFields } from '@/core/treatments/levels';
import { localContrastFields } from '@/core/treatments/local-contrast';
import { localToneFields } from '@/core/treatments/local-tone';
import { monochromeFields } from '@/core/treatments/monochrome';
import { noiseFields } from '@/core/treatments/noise';
import { rangesFields } from '@/core/treatments/ranges';
import { shownPiece, useBench } from '@/store/bench';
import { changeReady, readyOf } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';

/** Steps of readying whose panel is drawn from their schema: a field of `ready` each. */
const steps = {
  lens: { name: 'Lens', schema: z.object(lensFields) },
  fringe: { name: 'Seams on edges', schema: z.object(fringeFields) },
  whiteBalance: { name: 'White balance', schema: z.object(balanceFields) },
  tone: { name: 'Light', schema: z.object(exposureFields) },
  even: { name: 'Even out', schema: z.object(evenFields) },
  localTone: { name: 'Local tone', schema: z.object(localToneFields) },
  localContrast: { name: 'Local contrast', schema: z.object(localContrastFields) },
  levels: { name: 'Levels', schema: z.object(levelsFields) },
  colour: { name: 'Colour', schema: z.object(colourFields) },
  ranges: { name: 'Colour by tone', schema: z.object(rangesFields) },
  monochrome: { name: 'Black and white', schema: z.object(monochromeFields) },
  noise: { name: 'Noise', schema: z.object(noiseFields) },
} as const;
export type StepField = keyof typeof steps;

interface StepProps {
  field: StepField;
  only?: string[];
  /** Under its own name, opened by it. */
  fold?: boolean;
  begin?: boolean;
  children?: ReactNode;
}

/** One step of readying as a panel, with the way back to the photo as it was taken. */
export function ReadyStep({ field, only, fold, begin, children }: StepProps) {
  const piece = useBench(shownPiece);
  const { change, preview } = useBench.getState();
  if (!piece) return null;
  const { name, schema } = steps[field];
  const own = readyOf(piece)[field] as Record<string, unknown> | undefined;
  const neutral = schema.parse({}) as Record<string, unknown>;
  const values = { ...neutral, ...own };
  const changed = Object.keys(values).some((key) => JSON.stringify(values[key]) !== JSON.stringify(neutral[key]));
  const set = (key: string, v: unknown) => changeReady((r) => ({ ...r, [field]: { ...values, [key]: v } }) as Ready);
  const body = (
    <>
      {children}
      <Panel
        schema={schema}
        values={values}
        only={only}
        onPreview={(key, v) => preview(set(key, v))}
        onCommit={(key, v, label) => change(`${name}: ${label.toLowerCase()}`, set(key, v), `ready.${field}.${key}`)}
      />
      {changed ? (
        <Act
          plain
          accessibilityLabel={`${name} as photographed`}
          onPress={() =>
            change(
              `${name} as photographed`,
              changeReady((r) => ({ ...r, [field]: undefined })),
            )
          }
        >
          As photographed
        </Act>
      ) : null}
    </>
  );
  return fold ? (
    <Fold title={name} changed={changed} begin={begin}>
      {body}
    </Fold>
  ) : (
    body
  );
}
