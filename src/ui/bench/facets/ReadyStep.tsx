import type { ReactNode } from 'react';
import type { Ready } from '@/core/ready/schema';
import { readySteps, type ReadyField } from '@/core/ready/steps';
import { shownPiece, useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { changeReady, readyOf } from '@/store/ready';
import { Act } from '../../kit/Act';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { words } from '../../words';

/** Steps of readying whose panel is drawn from their controls. */
export type StepField = { [K in ReadyField]: (typeof readySteps)[K] extends { controls: unknown } ? K : never }[ReadyField];

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
  const { change } = useBench.getState();
  if (!piece) return null;
  const { label: name, controls: schema } = readySteps[field];
  const own = readyOf(piece)[field] as Record<string, unknown> | undefined;
  const neutral = schema.parse({}) as Record<string, unknown>;
  const values = { ...neutral, ...own };
  const changed = Object.keys(values).some((key) => JSON.stringify(values[key]) !== JSON.stringify(neutral[key]));
  const set = (key: string, v: unknown) => changeReady((r) => ({ ...r, [field]: { ...values, [key]: v } }) as Ready);
  const body = (
    <>
      {children}
      <Panel schema={schema} values={values} only={only} {...panelEdit(set, stepOf(name), `ready.${field}`)} />
      {changed ? (
        <Act
          plain
          accessibilityLabel={words.readyStep.namedAsPhotographed(name)}
          onPress={() =>
            change(
              words.readyStep.namedAsPhotographed(name),
              changeReady((r) => ({ ...r, [field]: undefined })),
            )
          }
        >
          {words.readyStep.asPhotographed}
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
