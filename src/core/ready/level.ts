import type { Size } from './geometry';
import type { Point } from '../image/projection';

/** Bins of a tenth of a degree over ±20° about the axes. */
const BIN = 0.1;
const REACH = 20;

export interface Level {
  /** Degrees clockwise by which level and upright lines are off; the frame turned by them makes them level. */
  turn: number;
  /** How far the strongest direction stands out: its share of all long edges. */
  sure: number;
}

/**
 * The dominant direction near the axes, or null when there are no long lines. Edge points vote in a Hough transform (Duda & Hart 1972)
 * restricted to ±20°: for each angle, edges of the right direction are projected across it, and what gathers in few places counts. `luma`
 * is 0..255, `width` × `height`, at an analysis size of some hundred pixels.
 */
export function findLevel(luma: Float32Array | Uint8Array, size: Size): Level | null {
  return dominant(edges(luma, size.width, size.height), size);
}

/** A line through two points, in fractions of the picture. */
export type Line = [Point, Point];

/**
 * Two lines along what should be upright, one in the left and one in the right part of the picture, or null when either has none: the
 * dominant direction near the vertical of each part, through the middle of the edges that run so.
 */
export function findUprights(luma: Float32Array | Uint8Array, size: Size): [Line, Line] | null {
  const all = edges(luma, size.width, size.height);
  const lines: Line[] = [];
  for (const [from, to] of [
    [0, 0.42],
    [0.58, 1],
  ]) {
    const part = pick(all, (i) => all.ys[i] >= UPRIGHT && all.xs[i] >= from * size.width && all.xs[i] < to * size.width);
    const found = dominant(part, size);
    if (!found) return null;
    lines.push(strongest(part, found.turn, size));
  }
  return lines as [Line, Line];
}

/** The line that most edge points near a direction lie on, fitted to them by least squares. */
function strongest(part: Edges, turn: number, { width, height }: Size): Line {
  const c = Math.cos((turn * Math.PI) / 180);
  const s = Math.sin((turn * Math.PI) / 180);
  const near = pick(part, (i) => Math.abs(part.angles[i] - turn) < 3);
  const across = near.xs.map((x, i) => x * c + (near.ys[i] - UPRIGHT) * s);
  const counts = new Map<number, number>();
  across.forEach((d, i) => [Math.floor(d), Math.ceil(d)].forEach((k) => counts.set(k, (counts.get(k) ?? 0) + near.weights[i])));
  const [peak] = [...counts.entries()].reduce((a, b) => (b[1] > a[1] ? b : a));
  const on = near.xs.map((_, i) => i).filter((i) => Math.abs(across[i] - peak) < 2.5);
  const mean = (of: (i: number) => number) =>
    on.reduce((sum, i) => sum + of(i) * near.weights[i], 0) / on.reduce((sum, i) => sum + near.weights[i], 0);
  const [mx, my] = [mean((i) => near.xs[i]), mean((i) => near.ys[i] - UPRIGHT)];
  const spread = mean((i) => (near.ys[i] - UPRIGHT - my) ** 2);
  const lean = spread > 1 ? mean((i) => (near.xs[i] - mx) * (near.ys[i] - UPRIGHT - my)) / spread : -Math.tan((turn * Math.PI) / 180);
  const at = (y: number): Point => [(mx + lean * (y - my) + 0.5) / width, (y + 0.5) / height];
  return [at(my - height / 2), at(my + height / 2)];
}

type Edges = ReturnType<typeof edges>;
/** Added to the place of upright edges, to tell them from level ones. */
const UPRIGHT = 1e6;

function pick(all: Edges, wanted: (i: number) => boolean): Edges {
  const at = all.xs.map((_, i) => i).filter(wanted);
  const take = (list: number[]) => at.map((i) => list[i]);
  return { xs: take(all.xs), ys: take(all.ys), angles: take(all.angles), weights: take(all.weights) };
}

function dominant({ xs, ys, angles, weights }: Edges, { width, height }: Size): Level | null {
  if (xs.length < 50) return null;
  const count = Math.round((2 * REACH) / BIN) + 1;
  const score = new Float64Array(count);
  const reach = Math.ceil(Math.hypot(width, height)) + 2;
  const bins = new Float64Array(2 * reach + 1);
  // Coarse first: every half degree, then finely about the best.
  const at = (k: number) => {
    if (score[k] > 0) return score[k];
    const turn = -REACH + k * BIN;
    score[k] = gather(turn, xs, ys, angles, weights, bins, reach);
    return score[k];
  };
  let best = 0;
  for (let k = 0; k < count; k += 5) if (at(k) > at(best)) best = k;
  for (let k = Math.max(0, best - 8); k <= Math.min(count - 1, best + 8); k++) if (at(k) > at(best)) best = k;
  const coarse = Array.from({ length: Math.ceil(count / 5) }, (_, i) => at(i * 5)).sort((a, b) => a - b);
  const usual = coarse[Math.floor(coarse.length / 2)];
  const sure = at(best) / Math.max(usual, 1e-9);
  if (at(best) < 1e-6 || sure < 3) return null;
  // The top of a parabola through the best and its neighbours.
  const [l, m, r] = [at(Math.max(0, best - 1)), at(best), at(Math.min(count - 1, best + 1))];
  const shift = l + r - 2 * m === 0 ? 0 : (0.5 * (l - r)) / (l + r - 2 * m);
  return { turn: Math.round((-REACH + (best + Math.max(-1, Math.min(1, shift))) * BIN) * 100) / 100, sure };
}

/** Points of strong gradient with the direction of the edge through them, in degrees off the nearer axis. */
function edges(luma: Float32Array | Uint8Array, width: number, height: number) {
  const xs: number[] = [];
  const ys: number[] = [];
  const angles: number[] = [];
  const weights: number[] = [];
  const found: [number, number, number, number][] = [];
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2; x < width - 2; x++) {
      const i = y * width + x;
      // Scharr's operator: its direction is nearly the same at every angle.
      const gx = 3 * (luma[i - width + 1] - luma[i - width - 1]) + 10 * (luma[i + 1] - luma[i - 1]) + 3 * (luma[i + width + 1] - luma[i + width - 1]);
      const gy =
        3 * (luma[i + width - 1] - luma[i - width - 1]) + 10 * (luma[i + width] - luma[i - width]) + 3 * (luma[i + width + 1] - luma[i - width + 1]);
      const strength = Math.hypot(gx, gy) / 32;
      if (strength < 6) continue;
      found.push([x, y, Math.atan2(gy, gx), strength]);
    }
  }
  // The strongest twentieth of the picture's points say enough.
  found.sort((a, b) => b[3] - a[3]);
  const most = Math.round((width * height) / 20);
  for (const [x, y, direction, strength] of found.slice(0, most)) {
    const degrees = (direction * 180) / Math.PI;
    const off = degrees - 90 * Math.round(degrees / 90);
    if (Math.abs(off) > REACH + 6) continue;
    // Upright edges have gradients across.
    const upright = Math.abs(Math.round(degrees / 90)) % 2 === 0;
    xs.push(x);
    ys.push(upright ? y + UPRIGHT : y);
    angles.push(off);
    weights.push(Math.min(strength, 40));
  }
  return { xs, ys, angles, weights };
}

/** How much of the edges gathers on few lines when they are taken to run at `turn` degrees off the axes. */
function gather(turn: number, xs: number[], ys: number[], angles: number[], weights: number[], bins: Float64Array, reach: number): number {
  const c = Math.cos((turn * Math.PI) / 180);
  const s = Math.sin((turn * Math.PI) / 180);
  let total = 0;
  for (const upright of [false, true]) {
    bins.fill(0);
    for (let i = 0; i < xs.length; i++) {
      if (ys[i] >= UPRIGHT !== upright || Math.abs(angles[i] - turn) > 5) continue;
      const y = upright ? ys[i] - UPRIGHT : ys[i];
      // Distance of the point from a line through the origin at that angle.
      const d = (upright ? xs[i] * c + y * s : y * c - xs[i] * s) + reach / 2;
      const k = Math.floor(d);
      const f = d - k;
      if (k < 0 || k + 1 >= bins.length) continue;
      bins[k] += weights[i] * (1 - f);
      bins[k + 1] += weights[i] * f;
    }
    // Squares reward what lies on one line over what is spread.
    for (let i = 0; i < bins.length; i++) total += bins[i] * bins[i];
  }
  return total;
}
