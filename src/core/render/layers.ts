import { operatorOf } from '../files/openRaster';
import type { BlendName } from '../blend';
import type { Coat, Piece } from '../piece/schema';
import { followsTone } from './compile/coat';
import type { View } from './view';

/** One layer of a piece that is handed on: what is drawn for it, and how it lies on those below. */
export interface PieceLayer {
  coat: Coat | null;
  view: View;
  mode: BlendName;
  opacity: number;
  visible: boolean;
  /** What it draws is the whole picture up to it, because no layer can say what its coat does. */
  baked: boolean;
}

type Layered = Pick<Piece, 'coats' | 'guards' | 'strength'>;

/**
 * A piece as layers, bottom to top: the photo, then a layer a coat. A coat whose mode has no name there, or whose guards follow the tone, is baked; so is
 * the strength of all coats, as a last layer. Laid over each other they are the piece.
 */
export function layersOf({ coats, guards, strength }: Layered): PieceLayer[] {
  const whole = { mode: 'normal', opacity: 1, visible: true } as const;
  const layers: PieceLayer[] = [{ coat: null, view: { kind: 'photo' }, ...whole, baked: false }];
  for (const coat of coats) {
    const baked = operatorOf(coat.blend) === undefined || followsTone(coat, guards);
    // What a hidden coat would bake is what lies below it.
    layers.push(
      baked
        ? { coat, view: { kind: 'upTo', coat: coat.id }, ...whole, visible: coat.visible, baked }
        : { coat, view: { kind: 'layer', coat: coat.id }, mode: coat.blend, opacity: coat.strength, visible: coat.visible, baked },
    );
  }
  if (strength < 1 && coats.length > 0) layers.push({ coat: null, view: { kind: 'piece' }, ...whole, baked: true });
  return layers;
}
