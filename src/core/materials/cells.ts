import type { Crack } from './cracks';
import type { Field } from './field';
import { gridded } from './making/operations/structures';
import { Random } from './random';
import type { Sheet } from './sheet';

/** Islands are found on a grid of this size, whatever the size of the sheet, so that they are the same at every size. */
const GRID = 512;
const MASK = GRID - 1;
const SINE = Float32Array.from({ length: GRID }, (_, i) => Math.sin((2 * Math.PI * i) / GRID));

type Value = (x: number, y: number, random: Random) => number;

/**
 * The islands between cracks. Returns a function that gives every island a value computed from its middle; cracks take the largest
 * value beside them. The grid is a torus, as the net is.
 */
export function islandsOf(cracks: Crack[]): (seed: number, value: Value) => Float32Array {
  const label = new Int32Array(GRID * GRID);
  const mark = (x: number, y: number) => (label[(Math.floor(y) & MASK) * GRID + (Math.floor(x) & MASK)] = -1);
  for (const { points } of cracks) {
    for (let i = 1; i < points.length; i++) {
      const [ax, ay] = points[i - 1];
      const [bx, by] = points[i];
      const steps = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) * GRID * 2));
      for (let s = 0; s <= steps; s++) {
        const x = (ax + ((bx - ax) * s) / steps) * GRID;
        const y = (ay + ((by - ay) * s) / steps) * GRID;
        // Two wide, so that no island leaks through a diagonal.
        mark(x, y);
        mark(x + 0.5, y);
      }
    }
  }
  const middles: [number, number][] = [[0, 0]];
  const stack = new Int32Array(GRID * GRID);
  for (let start = 0; start < label.length; start++) {
    if (label[start] !== 0) continue;
    const id = middles.length;
    let top = 0;
    stack[top++] = start;
    label[start] = id;
    // Circular means, because an island may lie across the edge.
    let [sx, cx, sy, cy] = [0, 0, 0, 0];
    while (top > 0) {
      const at = stack[--top];
      const [x, y] = [at & MASK, at >> 9];
      sx += SINE[x];
      cx += SINE[(x + GRID / 4) & MASK];
      sy += SINE[y];
      cy += SINE[(y + GRID / 4) & MASK];
      for (const next of [y * GRID + ((x + 1) & MASK), y * GRID + ((x - 1) & MASK), ((y + 1) & MASK) * GRID + x, ((y - 1) & MASK) * GRID + x]) {
        if (label[next] !== 0) continue;
        label[next] = id;
        stack[top++] = next;
      }
    }
    const turn = (s: number, c: number) => (((Math.atan2(s, c) / (2 * Math.PI)) % 1) + 1) % 1;
    middles.push([turn(sx, cx), turn(sy, cy)]);
  }
  return (seed, value) => {
    const values = middles.map(([x, y], id) => value(x, y, new Random(seed + id * 31)));
    const out = Float32Array.from(label, (id) => (id > 0 ? values[id] : -Infinity));
    for (let pass = 0; pass < 24 && out.includes(-Infinity); pass++) widen(out);
    return out;
  };
}

/** Cells without a value take the largest of their neighbours. */
function widen(out: Float32Array): void {
  const empty: number[] = [];
  for (let i = 0; i < out.length; i++) if (out[i] === -Infinity) empty.push(i);
  const found = empty.map((i) => {
    const [x, y] = [i & MASK, i >> 9];
    const [left, right] = [out[y * GRID + ((x - 1) & MASK)], out[y * GRID + ((x + 1) & MASK)]];
    const [up, down] = [out[((y - 1) & MASK) * GRID + x], out[((y + 1) & MASK) * GRID + x]];
    return Math.max(left, right, up, down);
  });
  empty.forEach((i, k) => (out[i] = found[k]));
}

/** A grid of cell values as a field. */
export function spreadCells(sheet: Sheet, grid: Float32Array): Field {
  const { x, y } = sheet.coordinates();
  return sheet.step(gridded, { grid, side: GRID }, x, y);
}

/** A few waves that repeat over the sheet: a slow field that can be asked anywhere. Mean 0, deviation about 1. */
export function slowField(seed: number, waves = 5): (x: number, y: number) => number {
  const random = new Random(seed);
  const list = Array.from({ length: waves }, () => [1 + random.integer(3), random.integer(4) - 1, random.between(0, 2 * Math.PI)]);
  return (x, y) => list.reduce((sum, [a, b, p]) => sum + Math.sin(2 * Math.PI * (a * x + b * y) + p), 0) * Math.sqrt(2 / waves);
}
