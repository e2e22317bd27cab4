import { create } from 'zustand';
import type { CutSubject } from '../core/guards/subject';
import { chain, invert, scaled, slope, apply, type Point } from '../core/image/projection';
import { unitOf, UNITS } from '../core/image/unit';
import { layProjection } from '../core/lay/lay';
import { nominalOf } from '../core/lay/nominal';
import { changeCoat, type Edit } from '../core/piece/edits';
import type { Coat, Piece } from '../core/piece/schema';
import { pieceSize } from '../core/ready/geometry';
import { chosenCoat, useBench } from './bench';

/** What a stroke on a cut-out does: add to it, erase from it, mark what the subject is and what it is not, or refine its hair. */
export type Cutting = 'put' | 'take' | 'keep' | 'leave' | 'hair';

export const useCutting = create<{ does: Cutting; set(does: Cutting): void }>((set) => ({ does: 'put', set: (does) => set({ does }) }));

/** The other picture that a coat cuts out; null for any other coat. */
export const cutFileOf = (coat: Coat | null | undefined): string | null =>
  coat?.source.kind === 'cutout' ? ((coat.source as { file?: string }).file ?? null) : null;

/** True on the tab on which a cut-out of another picture is corrected. */
export const isCutting = (bench: ReturnType<typeof useBench.getState>): boolean =>
  bench.facet === 'material' && cutFileOf(chosenCoat(bench)) !== null;

const NONE: CutSubject = { strokes: [], hints: [], hairs: [] };
export const subjectOf = (coat: Coat): CutSubject => (coat.source as { subject?: CutSubject }).subject ?? NONE;

/** Changes how the subject of a cut-out is corrected; undefined takes the corrections away. */
export const setSubject = (id: string, change: (subject: CutSubject) => CutSubject | undefined): Edit =>
  changeCoat(id, (coat) => ({ source: { ...coat.source, subject: change(subjectOf(coat)) } as Coat['source'] }));

/** Takes points of the piece, in fractions, to fractions of the picture that a coat cuts out; and lengths in u of the piece to u of that picture. */
export function onCutPicture(piece: Piece, coat: Coat): { point(p: Point): Point; length(u: number): number } {
  const frame = pieceSize(piece);
  const nominal = nominalOf(coat.source, frame);
  const map = chain(
    scaled(1 / nominal.width, 1 / nominal.height),
    layProjection(coat.lay, nominal, { ...frame, unit: unitOf(frame) }),
    scaled(frame.width, frame.height),
  );
  const middle = apply(invert(map), [0.5, 0.5]);
  const [ux, vx, uy, vy] = slope(map, middle);
  // From u of the piece to fractions of it, on to fractions of the picture, and to u of that.
  const area = Math.abs(ux * vy - vx * uy) * ((nominal.width * nominal.height) / (frame.width * frame.height));
  return {
    point: (p) => apply(map, p),
    length: (u) => (u * unitOf(frame) * Math.sqrt(area) * UNITS) / Math.max(nominal.width, nominal.height),
  };
}
