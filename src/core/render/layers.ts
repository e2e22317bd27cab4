import { operatorOf } from '../files/openRaster';
import type { BlendName } from '../blend';
import { groupOf, innerCoats, isIsolated } from '../piece/groups';
import type { Coat, Piece } from '../piece/schema';
import { isIdle } from '../treatments/run';
import { treatsWhole } from '../mask/draw';
import { followsTone } from './compile/coat';
import type { View } from './view';

interface Laid {
  coat: Coat | null;
  mode: BlendName;
  opacity: number;
  visible: boolean;
}

/** One layer of a piece that is handed on: what is drawn for it, and how it lies on those below. */
export interface PieceLayer extends Laid {
  view: View;
  /** What it draws is the whole picture up to it, because no layer can say what its coat does. */
  baked: boolean;
}

/** A group of layers. */
export interface PieceStack extends Laid {
  coat: Coat;
  isolated: boolean;
  layers: PieceEntry[];
}
export type PieceEntry = PieceLayer | PieceStack;

type Layered = Pick<Piece, 'coats' | 'guards' | 'strength'>;

const whole = { mode: 'normal', opacity: 1, visible: true } as const;

/**
 * A piece as layers, bottom to top: the photo, then a layer a coat and a stack a group. A coat whose mode has no name there, or whose guards follow the tone,
 * is baked; so is the strength of all coats, as a last layer. Laid over each other they are the piece.
 */
export function layersOf({ coats, guards, strength }: Layered): PieceEntry[] {
  const layers: PieceEntry[] = [{ coat: null, view: { kind: 'photo' }, ...whole, baked: false }, ...coats.map((coat) => entryOf(coat, guards))];
  if (strength < 1 && coats.length > 0) layers.push({ coat: null, view: { kind: 'piece' }, ...whole, baked: true });
  return layers;
}

/** True when a coat can be a layer of its own: its mode has a name there, and it is laid on its backdrop like any layer. */
const isLayer = (coat: Coat, guards: Layered['guards']) =>
  operatorOf(coat.blend) !== undefined && !followsTone(coat, guards) && (!groupOf(coat) || isIsolated(coat));

function entryOf(coat: Coat, guards: Layered['guards']): PieceEntry {
  if (isStack(coat, guards)) {
    const layers = innerCoats(coat).map((one) => entryOf(one, guards));
    return { coat, mode: coat.blend, opacity: coat.strength, visible: coat.visible, isolated: isIsolated(coat), layers };
  }
  if (isLayer(coat, guards))
    return { coat, view: { kind: 'layer', coat: coat.id }, mode: coat.blend, opacity: coat.strength, visible: coat.visible, baked: false };
  // A hidden coat is not drawn, so its baked layer is the picture below it.
  return { coat, view: { kind: 'upTo', coat: coat.id }, ...whole, visible: coat.visible, baked: true };
}

/** True for a group that only lays its coats together. In an isolated one nothing can be baked: the picture below would come with it. */
function isStack(group: Coat, guards: Layered['guards']): boolean {
  if (!groupOf(group)) return false;
  const { mask, limits, treatments, strength, blend } = group;
  const isPlain =
    mask.start === 'all' && mask.parts.length === 0 && !treatsWhole(mask) && limits.join() === '0,0,1,1' && treatments.every((step) => isIdle(step));
  if (!isPlain || (guards && group.guards > 0)) return false;
  if (!isIsolated(group)) return strength === 1;
  return operatorOf(blend) !== undefined && innerCoats(group).every((coat) => isStack(coat, guards) || isLayer(coat, guards));
}

/** The layers of entries that have a picture of their own, bottom to top. */
export const pictureLayers = (entries: readonly PieceEntry[]): PieceLayer[] =>
  entries.flatMap((entry) => ('layers' in entry ? pictureLayers(entry.layers) : [entry]));
