import type { Field } from './field';
import { turnedLattice } from './lattice';
import { triangles } from './making/operations/events';
import { Random } from './random';
import type { Sheet, StrokePoint } from './sheet';

/**
 * A net of flat facets as crumpling leaves them: the quads of a turned lattice, their corners moved and split along one diagonal or the other.
 * `cells` a side. Height of deviation about `amplitude` / cells, and the creases between facets as strokes of random sharpness.
 */
export function facetNet(sheet: Sheet, cells: number, angle: number, amplitude: number, seed: number): { height: Field; creases: StrokePoint[][] } {
  const { a, b, n, t } = turnedLattice(cells, angle);
  const random = new Random(seed);
  // One corner for every cell of the torus; its name is the same on both sides.
  const corners = Array.from({ length: n }, () => [random.between(-0.4, 0.4), random.between(-0.4, 0.4), (random.gauss() * amplitude) / cells]);
  const key = (i: number, j: number) => (((i + t * j) % n) + n) % n;
  const at = (i: number, j: number): [number, number, number] => {
    const [dx, dy, z] = corners[key(i, j)];
    const [u, v] = [i + dx, j + dy];
    return [(a * u + b * v) / n, (a * v - b * u) / n, z];
  };
  const places: number[] = [];
  const creases: StrokePoint[][] = [];
  const triangle = (p: number[], q: number[], r: number[]) => {
    for (const [x, y, z] of [p, q, r]) places.push(x, y, z);
  };
  const crease = (p: number[], q: number[], sharp: number) =>
    creases.push([
      [p[0], p[1], 0.0006, sharp],
      [q[0], q[1], 0.0006, sharp * 0.7],
    ]);
  // Each cell of the torus once: those whose corner lies in the unit square.
  const seen = new Set<number>();
  const reach = Math.ceil(Math.hypot(a, b)) + 1;
  for (let j = -reach; j <= 2 * reach; j++) {
    for (let i = -reach; i <= reach; i++) {
      const [x, y] = [(a * i + b * j) / n, (a * j - b * i) / n];
      if (x < -1e-9 || x >= 1 - 1e-9 || y < -1e-9 || y >= 1 - 1e-9 || seen.has(key(i, j))) continue;
      seen.add(key(i, j));
      const [p, q, r, s] = [at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)];
      // The shorter diagonal, or needles would stand up steeply.
      if (Math.hypot(p[0] - r[0], p[1] - r[1]) < Math.hypot(q[0] - s[0], q[1] - s[1])) {
        triangle(p, q, r);
        triangle(p, r, s);
        crease(p, r, random.next() ** 2);
      } else {
        triangle(p, q, s);
        triangle(q, r, s);
        crease(q, s, random.next() ** 2);
      }
      crease(p, q, random.next() ** 2);
      crease(p, s, random.next() ** 2);
    }
  }
  return { height: sheet.step(triangles, { corners: places }), creases };
}
