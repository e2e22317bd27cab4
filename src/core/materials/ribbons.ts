import type { Field } from './field';
import { ribbons } from './making/operations/events';
import { line } from './random';
import type { Sheet } from './sheet';

/** One stroke of a loaded tool, an arc of constant curvature; lengths in fractions of the long side. */
export interface Ribbon {
  x: number;
  y: number;
  angle: number;
  /** Radians by which it turns over its length. */
  turn?: number;
  length: number;
  width: number;
  /** Thickness of the paint. */
  height: number;
  /** Share of the height beneath that shows through it. */
  keep?: number;
  /** Paint pushed up at the sides and the end, in thicknesses, and how wide, in half widths. */
  ridge?: number;
  ridgeWidth?: number;
  /** Bristles to a width, and how deep they score, in thicknesses. */
  bristles?: number;
  score?: number;
  tone?: number;
  warmth?: number;
  /** How far the tone differs from bristle to bristle. */
  streak?: number;
  /** Over 0 the paint runs out on the way: bristles lift one after another. */
  dry?: number;
  /** Shares of the length over which it begins and ends. */
  begins?: number;
  ends?: number;
  /** By how many widths one side is ahead of the other. */
  skew?: number;
  /** A leaf instead: the width is its greatest, `bristles` the side veins. */
  leaf?: boolean;
}

const ROWS = 16;
const SAMPLES = 256;

/** Sixteen rows of smooth periodic noise, from which every stroke takes its bristles and edges. */
function bank(seed: number): Float32Array {
  const out = new Float32Array(ROWS * SAMPLES);
  for (let r = 0; r < ROWS; r++) {
    for (let i = 0; i < SAMPLES; i++) {
      // Two stretches run into one another, so that the row closes.
      const t = i / SAMPLES;
      const at = (k: number) => line(k * 0.21, seed + r * 101);
      out[r * SAMPLES + i] = (at(i) * (1 - t) + at(i - SAMPLES) * t) / Math.sqrt((1 - t) ** 2 + t ** 2);
    }
  }
  return out;
}

/** Lays strokes one over another: height, tone (about 0) and warmth of the paint. */
export function layRibbons(sheet: Sheet, list: Ribbon[]): { height: Field; tone: Field; warmth: Field } {
  const { random } = sheet;
  const words = new Float32Array(list.length * 24);
  list.forEach((r, i) => {
    words.set(
      [
        r.x,
        r.y,
        Math.cos(r.angle),
        Math.sin(r.angle),
        r.turn ?? 0,
        r.length,
        r.width / 2,
        r.height,
        r.keep ?? 0.45,
        r.ridge ?? 0.5,
        r.ridgeWidth ?? 0.08,
        r.bristles ?? 8,
        r.score ?? 0.4,
        r.tone ?? 0,
        r.warmth ?? 0,
        r.streak ?? 0,
        r.dry ?? 0,
        random.integer(ROWS),
        r.begins ?? 0.04,
        r.ends ?? 0.2,
        r.skew ?? 0,
        r.leaf ? 1 : 0,
        0,
        0,
      ],
      i * 24,
    );
  });
  const [height, tone, warmth] = sheet.stepOf(ribbons, { words, bank: bank(sheet.seed) });
  return { height, tone, warmth };
}
