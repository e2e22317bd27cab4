import { create } from 'zustand';
import type { Candidate, Subject } from '../core/piece/candidates';
import type { Piece } from '../core/piece/schema';
import type { Region } from '../core/image/tile';
import { pieceSize } from '../core/ready/geometry';
import { useBench } from './bench';
import { getEngine } from './engine';

/** What the next contact sheet begins with; `step` as in `variedSteps`. */
export const useContact = create<{ subject: Subject; step: string }>(() => ({ subject: 'modes', step: '' }));

/** Compares a step of the chosen coat, or its source, over its own strengths, sizes and seeds. */
export function compareStep(step: string): void {
  useContact.setState({ subject: 'step', step });
  useBench.getState().openFacet('contact');
}

/** What of the picture a cell shows: all of it, or a detail at its own size about a place in fractions of the photo. */
export type CellPlace = { kind: 'whole' } | { kind: 'detail'; middle: [number, number] };

/** The region that cells of so many pixels show, and its scale. */
export function cellRegion(piece: Piece, place: CellPlace, size: number): { region: Region; scale: number } {
  const { width: W, height: H } = pieceSize(piece);
  if (place.kind === 'whole') {
    const scale = Math.min(1, size / Math.max(W, H));
    return { scale, region: { x: 0, y: 0, width: Math.max(1, Math.round(W * scale)), height: Math.max(1, Math.round(H * scale)) } };
  }
  const [w, h] = [Math.min(W, Math.round(size)), Math.min(H, Math.round(size * 0.75))];
  const at = (middle: number, part: number, all: number) => Math.round(Math.min(all - part, Math.max(0, middle * all - part / 2)));
  return { scale: 1, region: { x: at(place.middle[0], w, W), y: at(place.middle[1], h, H), width: w, height: h } };
}

/**
 * Draws a piece once for every candidate, one after another: `next` chooses among those that are left. The coats below
 * are drawn only once.
 */
export async function drawCells(
  piece: Piece,
  coat: string,
  list: readonly Candidate[],
  region: Region,
  scale: number,
  next: (left: readonly string[]) => string,
  show: (key: string, image: ImageData) => void,
  signal: AbortSignal,
): Promise<void> {
  const engine = await getEngine();
  let left = list.map((one) => one.key);
  while (left.length > 0 && !signal.aborted) {
    const key = next(left);
    left = left.filter((k) => k !== key);
    const one = list.find((k) => k.key === key) as Candidate;
    const image = new ImageData(region.width, region.height);
    await engine.draw({ piece: one.edit(piece), region, scale, chosen: coat }, (bytes) => image.data.set(bytes), { quick: true });
    if (!signal.aborted) show(key, image);
  }
}
