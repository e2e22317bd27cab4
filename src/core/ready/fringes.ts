import type { Machine } from '../image/machine';
import { levelUpTo, type Picture } from '../image/picture';

/** Parts of a thousand by which red and blue are to be read farther out, and at how many edges that was seen. */
export interface Fringes {
  red: number;
  blue: number;
  edges: number;
}

/** Long side at which the picture is looked at; a thousandth of its half diagonal is over a pixel. */
const SIDE = 2400;
const HALF = 4;
const MOST_EDGES = 3000;
const FEWEST_EDGES = 60;
/** ‰ */
const FAR = 4;
const STEP = 0.25;

/**
 * How far a lens has spread red and blue against green: at edges that cross the radius, the profile of each along it is shifted until it is
 * most like green's (normalised correlation), all edges together, the top of the parabola through the best three. Null when there are too
 * few such edges. Common practice, no source.
 */
export function findFringes({ bytes }: Machine, picture: Picture): Fringes | null {
  const { at, width: w, height: h } = levelUpTo(picture, SIDE);
  const [cx, cy, radius] = [w / 2, h / 2, Math.hypot(w, h) / 2];
  const read = (x: number, y: number, c: number): number => {
    const sx = x < 0.5 ? 0 : x > w - 0.501 ? w - 1.001 : x - 0.5;
    const sy = y < 0.5 ? 0 : y > h - 0.501 ? h - 1.001 : y - 0.5;
    const x0 = sx | 0;
    const y0 = sy | 0;
    const fx = sx - x0;
    const fy = sy - y0;
    const p = at + (y0 * w + x0) * 4 + c;
    return (bytes[p] * (1 - fx) + bytes[p + 4] * fx) * (1 - fy) + (bytes[p + 4 * w] * (1 - fx) + bytes[p + 4 * w + 4] * fx) * fy;
  };
  const edges: { x: number; y: number; u: number; v: number; steep: number }[] = [];
  const step = Math.max(1, Math.round(Math.sqrt((w * h) / 250_000)));
  for (let y = 8; y < h - 8; y += step)
    for (let x = 8; x < w - 8; x += step) {
      const [dx, dy] = [x + 0.5 - cx, y + 0.5 - cy];
      const r = Math.hypot(dx, dy);
      if (r < 0.3 * radius) continue;
      const [u, v] = [dx / r, dy / r];
      const steep = Math.abs(read(x + 0.5 + 1.5 * u, y + 0.5 + 1.5 * v, 1) - read(x + 0.5 - 1.5 * u, y + 0.5 - 1.5 * v, 1));
      if (steep > 24) edges.push({ x: x + 0.5, y: y + 0.5, u, v, steep });
    }
  if (edges.length < FEWEST_EDGES) return null;
  const chosen = edges.sort((a, b) => b.steep - a.steep).slice(0, MOST_EDGES);
  const length = 2 * HALF + 1;
  /** Values along the radius around an edge, their mean taken off, of length 1. */
  const profile = (e: (typeof edges)[0], c: number, k: number, out: Float32Array, from: number): void => {
    const [px, py] = [e.x + (e.x - cx) * k, e.y + (e.y - cy) * k];
    let sum = 0;
    for (let i = 0; i < length; i++) sum += out[from + i] = read(px + (i - HALF) * e.u, py + (i - HALF) * e.v, c);
    let squares = 0;
    for (let i = 0; i < length; i++) squares += (out[from + i] -= sum / length) ** 2;
    const size = Math.sqrt(squares) || 1;
    for (let i = 0; i < length; i++) out[from + i] /= size;
  };
  const green = new Float32Array(chosen.length * length);
  chosen.forEach((e, n) => profile(e, 1, 0, green, n * length));
  const other = new Float32Array(length);
  const likeness = (c: number, k: number): number => {
    let sum = 0;
    for (let n = 0; n < chosen.length; n++) {
      profile(chosen[n], c, k, other, 0);
      for (let i = 0; i < length; i++) sum += other[i] * green[n * length + i];
    }
    return sum / chosen.length;
  };
  const best = (c: number): number => {
    const ks = Array.from({ length: (2 * FAR) / STEP + 1 }, (_, i) => -FAR + i * STEP);
    const likes = ks.map((k) => likeness(c, k / 1000));
    const i = likes.indexOf(Math.max(...likes));
    if (i === 0 || i === ks.length - 1) return ks[i];
    const [a, b, d] = [likes[i - 1], likes[i], likes[i + 1]];
    return Math.round((ks[i] + ((a - d) / (2 * (a - 2 * b + d) || 1)) * STEP) * 100) / 100;
  };
  return { red: best(0), blue: best(2), edges: chosen.length };
}
