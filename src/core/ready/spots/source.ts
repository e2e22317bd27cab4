import type { Machine } from '../../image/machine';
import { levelSize, type Picture } from '../../image/picture';
import type { Path } from './line';

/** Side of the spot, in pixels, on the level where its source is first looked for. */
const COARSE = 24;
/** How far away a source may lie, in sides of the spot. */
const FAR = 4;
const POINTS = 480;

interface Probe {
  /** Places around and inside the spot, in pixels of the level. */
  ring: [number, number][];
  /** How much a place around it counts: less the farther out. */
  weight: Float32Array;
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
function probe(path: Path, w: number, h: number, most: number): Probe {
  const { points, radius } = path;
  // Wide enough to hold what crosses near the spot: on a pattern that tells one place from another.
  const band = Math.max(2.5, radius * 0.8);
  const reach = radius + band;
  const x0 = Math.max(0, Math.floor(Math.min(...points.map((p) => p[0])) - reach));
  const x1 = Math.min(w - 1, Math.ceil(Math.max(...points.map((p) => p[0])) + reach));
  const y0 = Math.max(0, Math.floor(Math.min(...points.map((p) => p[1])) - reach));
  const y1 = Math.min(h - 1, Math.ceil(Math.max(...points.map((p) => p[1])) + reach));
  const step = Math.max(1, Math.sqrt(((x1 - x0 + 1) * (y1 - y0 + 1)) / 12000));
  const ring: [number, number][] = [];
  const inside: [number, number][] = [];
  const near = Math.max(1.5, radius * 0.3);
  for (let y = y0; y <= y1; y += step)
    for (let x = x0; x <= x1; x += step) {
      const [i, j] = [Math.floor(x), Math.floor(y)];
      const d = distanceTo(path, i + 0.5, j + 0.5);
      if (d <= radius) inside.push([i, j]);
      else if (d > radius + 0.5 && d <= reach) ring.push([i, j]);
    }
  const kept = few(ring, most);
  const weight = Float32Array.from(kept, ([x, y]) => 1 / (1 + ((distanceTo(path, x + 0.5, y + 0.5) - radius) / near) ** 2));
  return { ring: kept, weight, inside: few(inside, most) };
}

const few = <T>(list: T[], most: number): T[] => {
  const n = Math.ceil(list.length / most);
  return list.filter((_, i) => i % n === 0);
};

/** The path on a level of the picture. */
const onLevel = ({ points, radius }: Path, level: number): Path => {
  const k = 1 / (1 << level);
  return { points: points.map(([x, y]) => [x * k, y * k]), radius: radius * k };
};

/**
 * Where a piece lies that can take the spot's place: its surroundings are like the spot's, above all in where they rise and fall (a difference
 * in tone is taken up by the membrane), it is not busier inside than they are, and it is near. Looked for coarsely, then finer level by level so that joints and grain
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
  let found: Candidate[] = [];
  for (let level = top; level >= 0; level--) {
    const [w, h] = levelSize(picture, level);
    const here = onLevel(path, level);
    const places = probe(here, w, h, level === top ? POINTS / 3 : POINTS);
    if (places.ring.length === 0) return [Math.round(2.5 * path.radius), 0];
    const judge = (offsets: [number, number][]) => judged(machine, picture.levels[level], w, h, here, places, offsets);
    // Several of the best go on: on a pattern the coarsest level cannot tell which of them meets its joints.
    if (level === top) found = apart(judge(around(here, side / (1 << level), w, h)), KEPT);
    else
      found = found.flatMap(({ at }) =>
        judge(near([at[0] * 2, at[1] * 2], 2))
          .sort(byCost)
          .slice(0, 1),
      );
    if (found.length === 0) return [Math.round(2.2 * path.radius), 0];
  }
  return found.sort(byCost)[0].at;
}

interface Candidate {
  at: [number, number];
  cost: number;
}
const KEPT = 14;
const byCost = (a: Candidate, b: Candidate) => a.cost - b.cost;

/** The cheapest few that are not neighbours of each other. */
function apart(all: Candidate[], most: number): Candidate[] {
  const out: Candidate[] = [];
  for (const c of all.sort(byCost)) {
    if (out.length >= most) break;
    if (out.every((o) => Math.hypot(o.at[0] - c.at[0], o.at[1] - c.at[1]) > 3)) out.push(c);
  }
  return out;
}

function around(path: Path, side: number, w: number, h: number): [number, number][] {
  // No farther apart than a joint or a wave is wide, or the best places are stepped over.
  const step = Math.max(1, Math.round(side / 20));
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

/** What each candidate would cost; those that cannot serve are left out. */
function judged(
  { bytes }: Machine,
  at: number,
  w: number,
  h: number,
  path: Path,
  { ring, weight, inside }: Probe,
  candidates: [number, number][],
): Candidate[] {
  const offsets = (places: [number, number][]) => Int32Array.from(places, ([x, y]) => at + (y * w + x) * 4);
  const [ringAt, insideAt] = [offsets(ring), offsets(inside)];
  const bounds = extent([...ring, ...inside]);
  const pitch = w * 4;
  const last = at + w * h * 4;
  /** How luma rises over two pixels, across or down. */
  const rise = (p: number, step: number) => {
    const [a, b] = [p - step < at ? p : p - step, p + step >= last ? p : p + step];
    return (bytes[b] + 2 * bytes[b + 1] + bytes[b + 2] - bytes[a] - 2 * bytes[a + 1] - bytes[a + 2]) / 4;
  };
  const across = Float32Array.from(ringAt, (p) => rise(p, 4));
  const down = Float32Array.from(ringAt, (p) => rise(p, pitch));
  // Of the nearest half: what lies farther out may be something else.
  const middle = [...weight].sort((a, b) => a - b)[weight.length >> 1];
  const own = spread(
    bytes,
    ringAt.filter((_, i) => weight[i] >= middle),
    0,
  );
  const far = Math.max(w, h);
  const single = path.points.length === 1;
  const within = (x: number, y: number) => x >= 0 && y >= 0 && x < w && y < h;
  const out: Candidate[] = [];
  // Nothing that costs half as much again as the best so far is worth keeping.
  let least = Infinity;
  for (const [dx, dy] of candidates) {
    // A source that holds part of the spot would bring it back.
    if (single && Math.hypot(dx, dy) <= 2 * path.radius + 1) continue;
    const shift = (dy * w + dx) * 4;
    let into = insideAt;
    let missing = 0;
    if (!within(bounds.left + dx, bounds.top + dy) || !within(bounds.right + dx, bounds.bottom + dy)) {
      // Part of it lies beyond the picture, as for a wire that crosses it: judged by the rest, if that is most of it.
      const from = ring.filter(([x, y]) => within(x + dx, y + dy));
      into = insideAt.filter((_, i) => within(inside[i][0] + dx, inside[i][1] + dy));
      missing = 1 - (from.length + into.length) / (ringAt.length + insideAt.length);
      if (missing > 0.25) continue;
    }
    const sum = [0, 0, 0];
    let [squares, slopes, total] = [0, 0, 0];
    for (let i = 0; i < ringAt.length; i++) {
      const p = ringAt[i];
      if (missing > 0 && !within(ring[i][0] + dx, ring[i][1] + dy)) continue;
      const k = weight[i];
      total += k;
      for (let c = 0; c < 3; c++) {
        const d = bytes[p + c] - bytes[p + shift + c];
        sum[c] += k * d;
        squares += k * d * d;
      }
      slopes += k * ((across[i] - rise(p + shift, 4)) ** 2 + (down[i] - rise(p + shift, pitch)) ** 2);
    }
    const offset = sum.reduce((s, v) => s + (v / total) ** 2, 0);
    const unlike =
      (0.4 * squares) / total +
      0.8 * Math.sqrt(slopes / total) -
      0.35 * offset +
      (Math.hypot(dx, dy) / far) * 60 +
      (0.02 + missing) * own +
      100 * missing;
    if (unlike >= 1.5 * least) continue;
    // What lies inside the source should be like what lies around it: nothing else to be seen there.
    const odd = missing > 0 ? 0 : [0, 1, 2].reduce((s, c) => s + (meanOf(bytes, into, shift + c) - meanOf(bytes, ringAt, shift + c)) ** 2, 0);
    const cost = unlike + 0.6 * Math.max(0, spread(bytes, into, shift) - own) + odd;
    if (cost >= 1.5 * least) continue;
    if (!single && inside.some(([x, y], i) => i % 4 === 0 && distanceTo(path, x + dx + 0.5, y + dy + 0.5) <= path.radius + 1)) continue;
    least = Math.min(least, cost);
    out.push({ at: [dx, dy], cost });
  }
  return out;
}

function extent(places: [number, number][]): { left: number; top: number; right: number; bottom: number } {
  const [xs, ys] = [places.map((p) => p[0]), places.map((p) => p[1])];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/** Mean of one channel at some addresses. */
function meanOf(bytes: Uint8Array, places: Int32Array, shift: number): number {
  if (places.length === 0) return 0;
  let sum = 0;
  for (const p of places) sum += bytes[p + shift];
  return sum / places.length;
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
