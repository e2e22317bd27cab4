import { line, Random } from '../materials/random';

/** What the outlines of a border depend on; lengths in u. */
export interface BorderShape {
  inset: number;
  width: number;
  lines: number;
  gap: number;
  wobble: number;
  seed: number;
}
interface Size {
  width: number;
  height: number;
}

/** From point to point of a ruled line, in u. */
const STEP = 8;

/** The four sides of a rectangle that far from the edge, each as where it begins, its direction and its length. Clockwise from the top left. */
function sidesOf({ width, height }: Size, inset: number) {
  const [w, h] = [Math.max(1, width - 2 * inset), Math.max(1, height - 2 * inset)];
  return [
    { x: inset, y: inset, dx: 1, dy: 0, length: w },
    { x: width - inset, y: inset, dx: 0, dy: 1, length: h },
    { x: width - inset, y: height - inset, dx: -1, dy: 0, length: w },
    { x: inset, y: height - inset, dx: 0, dy: -1, length: h },
  ];
}

/** Lines ruled by hand: (x, y, half width, value) in u, a negative half width where a line begins. They run a little past their corners. */
export function ruledLines({ inset, width, lines, gap, wobble, seed }: BorderShape, size: Size): Float32Array {
  const out: number[] = [];
  const random = new Random(seed);
  for (let k = 0; k < Math.round(lines); k++) {
    // Inner lines are finer.
    const half = (width / 2) * (k === 0 ? 1 : 0.45);
    for (const [i, side] of sidesOf(size, inset + k * gap).entries()) {
      const hand = 2 * wobble;
      const past = () => random.between(3, 16) * hand * 0.6;
      const [before, after] = [past(), past()];
      const [from, to] = [random.between(-1.2, 1.2) * hand, random.between(-1.2, 1.2) * hand];
      const own = seed * 31 + k * 7 + i;
      const total = side.length + before + after;
      for (let s = 0; ; s += STEP) {
        const at = Math.min(s, total);
        const off = from + ((to - from) * at) / total + 2.4 * hand * line(at / 140, own);
        const along = at - before;
        const thick = half * (1 + 0.4 * hand * line(at / 60, own + 1000));
        const value = Math.min(1, Math.max(0.45, 0.95 + 0.5 * hand * line(at / 22, own + 2000)));
        out.push(side.x + side.dx * along - side.dy * off, side.y + side.dy * along + side.dx * off, s === 0 ? -thick : thick, value);
        if (at >= total) break;
      }
    }
  }
  return Float32Array.from(out);
}

/** Two broad strokes of a dry brush along each side; lengths in u. */
export function brushedSweeps({ inset, wobble, seed }: BorderShape, size: Size) {
  const random = new Random(seed);
  const wide = Math.max(8, inset) * 0.62;
  return [0.3, 0.9].flatMap((depth, pass) =>
    sidesOf(size, Math.max(8, inset) * depth).map((side) => {
      const stray = () => random.between(-0.5, 0.5) * wobble * wide;
      const half = side.length / 2 + wide * random.between(0.1, 0.6);
      const off = stray();
      return {
        cx: side.x + (side.dx * side.length) / 2 - side.dy * off,
        cy: side.y + (side.dy * side.length) / 2 + side.dx * off,
        tx: side.dx,
        ty: side.dy,
        half,
        wide,
        dry: pass === 0 ? 0.35 : 0.75,
        seed: random.integer(1e6),
      };
    }),
  );
}

/** Fractal noise along a line, its widest wave 90 u long. */
const ragged = (at: number, seed: number) => {
  let sum = 0;
  for (let octave = 0; octave < 6; octave++) sum += 0.55 ** octave * line((at / 90) * 2 ** octave, seed + octave * 101);
  return sum;
};

/** The outline along which paper is torn, in u; with `core`, the outline of the picture itself, inside the fibres of the torn edge. */
export function tornOutline({ inset, wobble, seed }: BorderShape, size: Size, core: boolean): [number, number][] {
  const out: [number, number][] = [];
  let way = 0;
  for (const side of sidesOf(size, inset)) {
    for (let s = 0; s < side.length; s += 3) {
      const at = way + s;
      // The same edge for both, and the fibres' own width on top.
      const fibres = core ? Math.max(1, 8 + 10 * ragged(at, seed + 5000)) * (0.4 + wobble) : 0;
      const off = 28 * wobble * ragged(at, seed) + fibres;
      const slide = 8 * wobble * ragged(at, seed + 9000);
      out.push([side.x + side.dx * (s + slide) - side.dy * off, side.y + side.dy * (s + slide) + side.dx * off]);
    }
    way += side.length;
  }
  return out;
}
