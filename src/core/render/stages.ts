import { withParts } from '../ready/parts';
import { neutralReady } from '../ready/schema';
import type { Coat, Piece } from '../piece/schema';
import type { View } from './view';

/** A state of a piece that can be looked at beside others: the piece as it was then, and what of it is shown. */
export interface Stage<P = Piece> {
  id: string;
  piece: P;
  view: View;
  /** The last coat that is on it, where it is one of the steps of the work. */
  coat?: Coat;
}

/**
 * The stages of the work, in its order: the photo as it was taken, as it was readied, with one coat after another, and the coats on grey without the photo.
 * All have the frame of the piece, so that they lie over each other.
 */
export function stagesOf<P extends Pick<Piece, 'coats' | 'ready'>>(piece: P): Stage<P>[] {
  const { ready, coats } = piece;
  const raw = withParts(neutralReady, ready ?? neutralReady, ['frame', 'lens'], true);
  const shown = coats.filter((coat) => coat.visible && coat.strength > 0);
  const upTo = (coat: Coat) => coats.slice(0, coats.indexOf(coat) + 1);
  const view: View = { kind: 'piece' };
  return [
    { id: 'taken', piece: { ...piece, ready: raw, coats: [] }, view },
    ...(ready ? [{ id: 'readied', piece: { ...piece, coats: [] }, view }] : []),
    ...shown.slice(0, -1).map((coat) => ({ id: `upTo:${coat.id}`, piece: { ...piece, coats: upTo(coat) }, view, coat })),
    { id: 'now', piece, view },
    ...(shown.length > 0 ? [{ id: 'texture', piece, view: { kind: 'texture' } as const }] : []),
  ];
}
