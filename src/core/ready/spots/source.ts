import type { Machine } from '../../image/machine';
import { levelSize, type Picture } from '../../image/picture';
import type { Path } from './mend';

/** Side of the spot, in pixels, on the level where its source is first looked for. */
const COARSE = 24;
/** How far away a source may lie, in sides of the spot. */
const FAR = 5;
const POINTS = 220;

interface Probe {
  /** Places around and inside the spot, in pixels of the level. */
  ring: [number, number][];
  inside: [number, number][];
}

const distanceTo = ({ points }: Path, x: number, y: number): number => {
  let least = Infinity;
  for (let i = 0; i < Math.max(1, points.length - 1); i++) {
    const [ax, ay] = points[i];
    const [bx, by] = points[Math.min(points.length - 1, i + 1)];
    const [dx, dy] = [bx - ax, by - ay];
    const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / Math.max(1e-9, dx * dx + dy * dy)));
    least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return least;
};

/** Some hundred places in a band around the path, and as many in it, evenly picked. */
function probe(path: Path, w: number, h: number): Probe {
  const { points, radius } = path;
  const band = Math.max(2.5, radius * 0.35);
  const reach = radius + band;
  const x0 = Math.max(0, Math.floor(Math.min(...points.map((p) => p[0])) - reach));
  const x1 = Math.min(w - 1, Math.ceil(Math.max(...points.map((p) => p[0])) + reach));
  const y0 = Math.max(0, Math.floor(Math.min(...points.map((p) => p[1])) - reach));
  const y1 = Math.min(h - 1, Math.ceil(Math.max(...points.map((p) => p[1])) + reach));
  const step = Math.max(1, Math.sqrt(((x1 - x0 + 1) * (y1 - y0 + 1)) / 12000));
  const ring: [number, number][] = [];
  const inside: [number, number][] = [];
  for (let y = y0; y <= y1; y += step)
    for (let x = x0; x <= x1; x += step) {
      const [i, j] = [Math.floor(x), Math.floor(y)];
      const d = distanceTo(path, i + 0.5, j + 0.5);
      if (d <= radius) inside.push([i, j]);
      else if (d > radius + 0.5 && d <= reach) ring.push([i, j]);
    }
  return { ring: few(ring), inside: few(inside) };
}

const few = <T>(list: T[]): T[] => {
  const n = Math.ceil(list.length / POINTS);
  return list.filter((_, i) => i % n === 0);
};

/** The path on a level of the picture. */
const onLevel = ({ points, radius }: Path, level: number): Path => {
  const k = 1 / (1 << level);
  return { points: points.map(([x, y]) => [x * k, y * k]), radius: radius * k };
};

/**
 * Where a piece lies that can take the spot's place: its surroundings are like the spot's (a difference in tone apart, which the membrane
 * takes up), it is not busier inside than they are, and it is near. Looked for coarsely, then finer level by level so that joints and grain
 * meet. In whole pixels from the spot; common practice, no source.
 */
export function findSource(machine: Machine, picture: Picture, path: Path): [number, number] {
  const xs = path.points.map((p) => p[0]);
  const ys = path.points.map((p) => p[1]);
  const across = Math.max(...xs) - Math.min(...xs) + 2 * path.radius;
  const down = Math.max(...ys) - Math.min(...ys) + 2 * path.radius;
  // A wire is judged by its thickness: its source lies beside it.
  const side = Math.max(2 * path.radius, Math.min(across, down));
  const top = Math.max(0, Math.min(picture.levels.length - 1, Math.round(Math.log2(side / COARSE))));
  let best: [number, number] = [0, 0];
  for (let level = top; level >= 0; level--) {
    const [w, h] = levelSize(picture, level);
    const here = onLevel(path, level);
    const places = probe(here, w, h);
    if (places.ring.length === 0) return [Math.round(2.5 * path.radius), 0];
    const candidates = level === top ? around(here, side / (1 << level), w, h) : near(best.map((v) => v * 2) as [number, number], 2);
    best = cheapest(machine, picture.levels[level], w, h, here, places, candidates);
  }
  return best;
}

function around(path: Path, side: number, w: number, h: number): [number, number][] {
  const step = Math.max(1, Math.round(side / 8));
  const far = Math.max(FAR * side, 40);
  const out: [number, number][] = [];
  for (let y = -Math.min(far, h); y <= Math.min(far, h); y += step)
    for (let x = -Math.min(far, w); x <= Math.min(far, w); x += step) {
      const [i, j] = [Math.round(x), Math.round(y)];
      if (Math.hypot(i, j) > 2.1 * path.radius) out.push([i, j]);
    }
  return out;
}

const near = ([x, y]: [number, number], by: number): [number, number][] =>
  Array.from({ length: (2 * by + 1) ** 2 }, (_, i) => [x - by + (i % (2 * by + 1)), y - by + Math.floor(i / (2 * by + 1))]);

function cheapest(
  { bytes }: Machine,
  at: number,
  w: number,
  h: number,
  path: Path,
  { ring, inside }: Probe,
  candidates: [number, number][],
): [number, number] {
  const offsets = (places: [number, number][]) => Int32Array.from(places, ([x, y]) => at + (y * w + x) * 4);
  const [ringAt, insideAt] = [offsets(ring), offsets(inside)];
  const bounds = extent([...ring, ...inside]);
  const own = spread(bytes, ringAt, 0);
  const far = Math.max(w, h);
  const n = ring.length;
  let best = candidates[0] ?? [Math.round(2.2 * path.radius), 0];
  let least = Infinity;
  for (const [dx, dy] of candidates) {
    if (bounds.left + dx < 0 || bounds.top + dy < 0 || bounds.right + dx >= w || bounds.bottom + dy >= h) continue;
    const shift = (dy * w + dx) * 4;
    const sum = [0, 0, 0];
    let squares = 0;
    for (const p of ringAt)
      for (let c = 0; c < 3; c++) {
        const d = bytes[p + c] - bytes[p + shift + c];
        sum[c] += d;
        squares += d * d;
      }
    const offset = sum.reduce((s, v) => s + (v / n) ** 2, 0);
    const unlike = squares / n - 0.85 * offset + (Math.hypot(dx, dy) / far) * 60 + 0.02 * own;
    if (unlike >= least) continue;
    const cost = unlike + 0.6 * Math.max(0, spread(bytes, insideAt, shift) - own);
    if (cost >= least) continue;
    // A source that holds part of the spot would bring it back.
    if (inside.some(([x, y]) => distanceTo(path, x + dx + 0.5, y + dy + 0.5) <= path.radius + 1)) continue;
    least = cost;
    best = [dx, dy];
  }
  return best;
}

function extent(places: [number, number][]): { left: number; top: number; right: number; bottom: number } {
  const [xs, ys] = [places.map((p) => p[0]), places.map((p) => p[1])];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/** Variance of the colours at some addresses, the three channels added. */
function spread(bytes: Uint8Array, places: Int32Array, shift: number): number {
  let total = 0;
  for (let c = 0; c < 3; c++) {
    let [sum, squares] = [0, 0];
    for (const p of places) {
      const v = bytes[p + shift + c];
      sum += v;
      squares += v * v;
    }
    total += squares / places.length - (sum / places.length) ** 2;
  }
  return places.length > 0 ? total : 0;
}
