import { pieceSchema, type Piece } from '../core/piece/schema';

/** A piece for tests of the stores: a small photo, and no coats unless they are given. */
export const testPiece = (more: object = {}): Piece =>
  pieceSchema.parse({ dermatex: 1, id: 'p1', name: 'One', created: 1, changed: 1, photo: { key: 'k', name: 'k', width: 10, height: 10 }, ...more });

/** A gradient across the picture, as the source of a coat. */
export const testGradient = (stops: readonly { at: number; colour: string; alpha: number }[]) => ({
  kind: 'gradient',
  stops,
  x1: 0,
  y1: 0.1,
  x2: 1,
  y2: 0.9,
});
