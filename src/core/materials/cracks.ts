import { clamp, line, Random, smooth } from './random';
import type { StrokePoint } from './sheet';

/** Growth always runs on this grid, whatever the size of the sheet, so that a crack net is the same at every size. */
const GRID = 1024;
const MASK = GRID - 1;

/** Cells within 8 of the middle, nearest first: squared distance, across, down. */
const AROUND: [number, number, number][] = [];
for (let j = -8; j <= 8; j++) for (let i = -8; i <= 8; i++) if (i * i + j * j < 65) AROUND.push([i * i + j * j, i, j]);
AROUND.sort((a, b) => a[0] - b[0] || a[2] - b[2] || a[1] - b[1]);
const ACROSS = Int8Array.from(AROUND, (a) => a[1]);
const DOWN = Int8Array.from(AROUND, (a) => a[2]);

export interface CrackOptions {
  seed: number;
  /** Primary cracks tried. */
  primary: number;
  /** Spacing of primary cracks in fractions of the side. */
  spacing: number;
  generations: number;
  /** Spacing of a generation by that of its parent. */
  ratio: number;
  tries: number;
  /** How a path wanders, and how strongly it is drawn back to its direction. */
  jag: number;
  back: number;
  /** Chance of a crack that stops by itself. */
  breaking: number;
  direction(x: number, y: number): number;
  density(x: number, y: number): number;
  rough?: number;
}

export interface Crack {
  /** Roughened points in fractions of the side; they may leave 0..1 where the net continues on the other side. */
  points: [number, number][];
  generation: number;
  width: number;
  /** Ends on an older crack. */
  hits: boolean;
}

/**
 * A crack net grown by stress: long first cracks, then others that leave a parent at a right angle and run until they meet another,
 * which they approach at nearly 90°. Widths follow the parent. The grid is a torus.
 */
export function growCracks(o: CrackOptions): Crack[] {
  const random = new Random(o.seed);
  const grid = new Int32Array(GRID * GRID).fill(-1);
  // A coarse grid answers "is anything near" without reading thousands of cells.
  const coarse = new Uint8Array((GRID / 4) * (GRID / 4));
  const cracks: (Crack & { straight: [number, number][] })[] = [];
  const cell = (x: number, y: number) => (Math.floor(y) & MASK) * GRID + (Math.floor(x) & MASK);

  const near = (x: number, y: number, radius: number): boolean => {
    const r = Math.ceil(radius / 4);
    const cx = Math.floor(x / 4);
    const cy = Math.floor(y / 4);
    const m = GRID / 4 - 1;
    for (let j = -r; j <= r; j++)
      for (let i = -r; i <= r; i++) if (i * i + j * j <= r * r && coarse[((cy + j) & m) * (m + 1) + ((cx + i) & m)]) return true;
    return false;
  };

  /** Number in `AROUND` of the nearest point of another crack within 8 cells, −1 for none. */
  const closest = (x: number, y: number, own: number[]): number => {
    const m = GRID / 4 - 1;
    const cx = Math.floor(x);
    const cy = Math.floor(y);
    let any = false;
    for (let j = (cy - 8) >> 2; j <= (cy + 8) >> 2 && !any; j++)
      for (let i = (cx - 8) >> 2; i <= (cx + 8) >> 2; i++)
        if (coarse[(j & m) * (m + 1) + (i & m)]) {
          any = true;
          break;
        }
    if (!any) return -1;
    for (let k = 0; k < AROUND.length; k++) {
      const id = grid[((cy + DOWN[k]) & MASK) * GRID + ((cx + ACROSS[k]) & MASK)];
      if (id >= 0 && !own.includes(id >> 12)) return k;
    }
    return -1;
  };

  const walk = (x: number, y: number, angle: number, most: number, own: number[], field?: (x: number, y: number) => number) => {
    const path: [number, number][] = [[x, y]];
    let drift = 0;
    const start = angle;
    let hit = -1;
    for (let s = 1; s < most; s++) {
      drift = 0.86 * drift + o.jag * random.gauss();
      angle += 0.22 * drift;
      if (field) angle += o.back * 0.5 * Math.sin(2 * (field(x / GRID, y / GRID) - angle));
      else angle += o.back * Math.sin(start - angle);
      if (s > 5 && s % 2 === 0) {
        const k = closest(x, y, own);
        if (k >= 0 && AROUND[k][0] <= 2) {
          hit = grid[cell(x + ACROSS[k], y + DOWN[k])];
          break;
        }
        if (k >= 0) {
          let turn = Math.atan2(DOWN[k], ACROSS[k]) - angle;
          turn -= 2 * Math.PI * Math.round(turn / (2 * Math.PI));
          if (Math.abs(turn) < 1.4) angle += 0.12 * turn;
        }
      }
      x += Math.cos(angle);
      y += Math.sin(angle);
      path.push([x, y]);
    }
    return { path, hit };
  };

  const keep = (path: [number, number][], generation: number, width: number, hit: number, from?: [number, number]) => {
    const id = cracks.length;
    const seed = o.seed + id * 13;
    const rough = o.rough ?? 1;
    const last = path.length - 1;
    const points = path.map(([x, y], i): [number, number] => {
      const [xa, ya] = path[Math.max(0, i - 2)];
      const [xb, yb] = path[Math.min(last, i + 2)];
      const length = Math.hypot(xb - xa, yb - ya) || 1;
      const fade = smooth(0, 6, Math.min(i, last - i));
      const d = rough * fade * (1.3 * line(0.045 * i, seed) + 0.6 * line(0.17 * i, seed + 1) + 0.35 * line(0.45 * i, seed + 2));
      return [(x - ((yb - ya) / length) * d) / GRID, (y + ((xb - xa) / length) * d) / GRID];
    });
    if (from) points[0] = from;
    if (hit >= 0) {
      const target = cracks[hit >> 12];
      const [hx, hy] = target.points[Math.min(target.points.length - 1, hit & 4095)];
      const [ex, ey] = points[last];
      // The nearest copy of the met point on the torus.
      points.push([hx - Math.round(hx - ex), hy - Math.round(hy - ey)]);
    }
    path.forEach(([x, y], i) => {
      grid[cell(x, y)] = id * 4096 + Math.min(i, 4095);
      coarse[(Math.floor(y / 4) & (GRID / 4 - 1)) * (GRID / 4) + (Math.floor(x / 4) & (GRID / 4 - 1))] = 1;
    });
    cracks.push({ points, straight: path, generation, width: Math.min(1.5, width), hits: hit >= 0 });
  };

  for (let k = 0; k < o.primary; k++) {
    const x = random.next() * GRID;
    const y = random.next() * GRID;
    if (near(x, y, (o.spacing * GRID) / 2)) continue;
    const angle = o.direction(x / GRID, y / GRID) + 0.35 * random.gauss() + (random.chance(0.3) ? Math.PI / 2 : 0);
    const width = random.logNormal(1, 0.35);
    const one = walk(x, y, angle, Math.min(3000, random.logNormal(0.5, 0.6) * GRID), [cracks.length], o.direction);
    const id = cracks.length;
    keep(one.path, 0, width, one.hit);
    const two = walk(x, y, angle + Math.PI, Math.min(3000, random.logNormal(0.5, 0.6) * GRID), [id, id + 1], o.direction);
    keep(two.path, 0, width, two.hit, cracks[id].points[0]);
  }
  for (let g = 1; g <= o.generations; g++) {
    for (let k = 0; k < o.tries * g && cracks.length > 0; k++) {
      const parent = random.integer(cracks.length);
      const { straight, points, width } = cracks[parent];
      if (straight.length < 8) continue;
      const i = 2 + random.integer(straight.length - 4);
      const [x, y] = straight[i];
      const spacing = ((o.spacing * o.ratio ** g) / Math.max(0.25, o.density((x / GRID) % 1, (y / GRID) % 1))) * GRID;
      const along = Math.atan2(straight[i + 1][1] - straight[i - 1][1], straight[i + 1][0] - straight[i - 1][0]);
      const angle = along + (random.chance(0.5) ? 1 : -1) * (Math.PI / 2) + random.between(-0.22, 0.22);
      const reach = 0.8 * spacing;
      if (near(x + Math.cos(angle) * reach, y + Math.sin(angle) * reach, Math.min(26, 0.55 * spacing))) continue;
      const most = random.chance(o.breaking) ? spacing * random.between(0.6, 1.6) : 14 * spacing;
      const { path, hit } = walk(x, y, angle, most, [parent, cracks.length]);
      if (path.length < 5) continue;
      keep(path, g, width * random.between(0.72, 1.12), hit, points[i]);
    }
  }
  return cracks;
}

/** Cracks as strokes; half widths in px at 1024 and values by generation. Free ends taper, ends on another crack narrow to .55. */
export function crackStrokes(
  cracks: Crack[],
  half: number[],
  value: number[],
  seed: number,
  strength: (x: number, y: number) => number,
): StrokePoint[][] {
  return cracks.map((crack, c) => {
    const g = Math.min(crack.generation, half.length - 1);
    const n = crack.points.length;
    return crack.points.map(([x, y], i): StrokePoint => {
      const wave = Math.max(0.2, 1 + 0.45 * line(0.09 * i, seed + c) + 0.3 * line(0.31 * i, seed + c + 5000));
      const end = clamp((n - 1 - i) / Math.min(60, n * 0.6));
      const taper = crack.hits ? 0.55 + 0.45 * smooth(0, 1, end * 4) : Math.max(0.05, end) ** 0.6;
      return [x, y, (half[g] * crack.width * wave * taper) / GRID, clamp(value[g] * wave ** 0.3 * Math.max(0.35, taper) * strength(x, y))];
    });
  });
}
