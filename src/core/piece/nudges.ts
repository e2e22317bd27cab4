import type { NudgeStroke } from '../nudge/schema';
import { changeStep, type Edit } from './edits';
import { findCoat } from './groups';
import type { Coat } from './schema';

/** The last step of a coat that moves it by hand; −1 where there is none. */
export const nudgeStepOf = (coat: Pick<Coat, 'treatments'> | null | undefined): number =>
  coat?.treatments.findLastIndex(({ kind }) => kind === 'nudge') ?? -1;

const strokesOf = (coat: Coat, index: number) => (coat.treatments[index] as { strokes?: NudgeStroke[] }).strokes ?? [];

/** Adds a stroke to the step of a coat that moves it by hand; a coat without one stays as it is. */
export const addNudge =
  (id: string, stroke: NudgeStroke): Edit =>
  (piece) => {
    const coat = findCoat(piece, id);
    const index = nudgeStepOf(coat);
    return coat && index >= 0 ? changeStep(id, index, { strokes: [...strokesOf(coat, index), stroke] })(piece) : piece;
  };

/** Takes strokes away: the last one, or all. */
export const dropNudges =
  (id: string, index: number, all: boolean): Edit =>
  (piece) => {
    const coat = findCoat(piece, id);
    return coat ? changeStep(id, index, { strokes: all ? [] : strokesOf(coat, index).slice(0, -1) })(piece) : piece;
  };
