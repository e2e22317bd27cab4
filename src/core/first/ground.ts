import { parseHex } from '../color/srgb';
import type { Coat } from '../piece/schema';
import { slotOf, withSlot } from './chain';
import type { Change } from './control';
import { specOf } from './start';

const GREY = '#808080';
/** Marks lighter than this cannot be multiplied on. */
const LIGHT = 0.45;

/**
 * Marks alone lie on white in multiply, where they are dark and flat. Raised or light ones lie on mid grey in hard light, or their lit edges would not show.
 * A mode of one's own choice stays.
 */
export function settled(coat: Coat, change: Change): Change {
  const next = { ...coat, ...change };
  const marks = specOf(coat, 'only')?.marks;
  const remap = slotOf(next, 'remap');
  if (!marks || marks.ground === GREY || !remap || !slotOf(next, 'levels')) return change;
  const [r, g, b] = parseHex(String(remap.dark));
  const grey = slotOf(next, 'relief') !== undefined || 0.2126 * r + 0.7152 * g + 0.0722 * b > LIGHT;
  const ground = grey ? GREY : marks.ground;
  const ours = next.blend === 'hard-light' || next.blend === 'multiply';
  return {
    ...change,
    treatments: withSlot(next.treatments, 'remap', { middle: ground, light: ground }),
    blend: ours ? (grey ? 'hard-light' : 'multiply') : next.blend,
  };
}
