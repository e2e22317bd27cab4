import * as z from 'zod';
import { curvesFields } from '../treatments/curves';
import { changeCoat, newCoat, type Edit } from './edits';
import { addCoat } from './stacking';
import { coatSchema, type Coat, type Piece } from './schema';

const curvesSchema = z.object(curvesFields);
export type FinishCurves = z.output<typeof curvesSchema>;
/** Curves that change nothing. */
export const straightCurves: FinishCurves = curvesSchema.parse({});

/** The coat on top that holds the curves of the finished piece; null when what lies on top is something else. */
export function finishCoat({ coats }: Pick<Piece, 'coats'>): Coat | null {
  const top = coats.at(-1);
  const isCurves = top?.source.kind === 'below' && top.treatments.length === 1 && top.treatments[0].kind === 'curves';
  return isCurves && top.mask.parts.length === 0 ? top : null;
}

/** The curves of the finished piece. */
export function finishCurves(piece: Pick<Piece, 'coats'>): FinishCurves {
  const { all, red, green, blue } = { ...straightCurves, ...finishCoat(piece)?.treatments[0] } as FinishCurves;
  return { all, red, green, blue };
}

/** Sets curves of the finished piece: in the coat of curves on top, or in a new one. */
export const setFinishCurves =
  (curves: Partial<FinishCurves>, newId: string, name: string): Edit =>
  (piece) => {
    const there = finishCoat(piece);
    if (there) return changeCoat(there.id, ({ treatments }) => ({ treatments: [{ ...treatments[0], ...curves }] }))(piece);
    const coat = newCoat(
      newId,
      { kind: 'below' },
      { blend: 'normal', strength: 1, name, treatments: [{ kind: 'curves', ...straightCurves, ...curves }] },
    );
    return addCoat(coatSchema.parse(coat), piece.coats.at(-1)?.id ?? null)(piece);
  };
