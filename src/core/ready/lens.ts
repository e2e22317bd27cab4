import * as z from 'zod';
import { share, slider } from '../schema';
import type { Point } from '../image/projection';

export const lensFields = {
  k1: slider('Distortion', -0.25, 0.25, 0, {
    step: 0.001,
    help: 'Below 0 straightens lines that bow outwards (barrel), above it lines that bow inwards (pincushion).',
  }),
  k2: slider('Bend far out', -0.15, 0.15, 0, { step: 0.001, help: 'The same, mostly in the corners.' }),
  red: slider('Red fringe', -4, 4, 0, { unit: '‰', step: 0.05, help: 'Draws red in or out until it lies on green.' }),
  blue: slider('Blue fringe', -4, 4, 0, { unit: '‰', step: 0.05, help: 'Draws blue in or out until it lies on green.' }),
  corners: share('Corner darkening', 0, { min: -1, max: 1, help: 'Lightens corners that the lens left dark.' }),
  farOut: share('Only far out', 0.3, { help: 'How much of it is kept for the corners themselves.' }),
};
export const lensSchema = z.object(lensFields);
export type Lens = z.output<typeof lensSchema>;

interface Size {
  width: number;
  height: number;
}

/** What drawing needs to know of a lens, in pixels of the file. */
export interface PlannedLens {
  /** Centre of the file, and half its diagonal: the unit of all distances. */
  cx: number;
  cy: number;
  radius: number;
  /** How far the straightened picture is spread, so that it fills the file's frame and no more. */
  zoom: number;
  k1: number;
  k2: number;
  /** Parts by which red and blue are read farther out than green. */
  red: number;
  blue: number;
  /** Light gained in the corners: 1 + f1·s² + f2·s⁴, linear. */
  f1: number;
  f2: number;
}

export const isNeutralLens = ({ k1, k2, red, blue, corners }: Lens): boolean => k1 === 0 && k2 === 0 && red === 0 && blue === 0 && corners === 0;

/** Brown (1966) and Conrady (1919), radial terms: where in the file the point at distance r of the straightened picture is read. */
const spread = (r: number, k1: number, k2: number) => r * (1 + k1 * r * r + k2 * r ** 4);
const slope = (r: number, k1: number, k2: number) => 1 + 3 * k1 * r * r + 5 * k2 * r ** 4;

/** The largest zoom under which no side and no corner of the straightened picture reads beyond the file, nor where the model turns back. */
function fillingZoom({ width, height }: Size, k1: number, k2: number): number {
  if (k1 === 0 && k2 === 0) return 1;
  const radius = Math.hypot(width, height) / 2;
  const sides: Point[] = [];
  for (let i = 0; i <= 32; i++) {
    const t = i / 32;
    sides.push([(width / 2 / radius) * t, height / 2 / radius], [width / 2 / radius, (height / 2 / radius) * t]);
  }
  const fits = (zoom: number) =>
    sides.every(([x, y]) => {
      const r = Math.hypot(x, y) * zoom;
      const k = (spread(r, k1, k2) / r) * zoom;
      if (x * k > width / 2 / radius + 1e-9 || y * k > height / 2 / radius + 1e-9) return false;
      for (let s = 0.1; s <= 1.001; s += 0.1) if (slope(r * s, k1, k2) < 0.05) return false;
      return true;
    });
  let [low, high] = [0.2, 1.6];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** Plans already made, by the lens they are of: finding the zoom takes a while, and points are led through a lens by the thousand. */
const planned = new WeakMap<Lens, { size: Size; plan: PlannedLens }>();

export function planLens(photo: Size, lens: Lens | undefined): PlannedLens | undefined {
  if (!lens || isNeutralLens(lens)) return undefined;
  const known = planned.get(lens);
  if (known && known.size.width === photo.width && known.size.height === photo.height) return known.plan;
  const plan = makePlan(photo, lens);
  planned.set(lens, { size: { width: photo.width, height: photo.height }, plan });
  return plan;
}

function makePlan(photo: Size, lens: Lens): PlannedLens {
  const { k1, k2, corners, farOut } = lens;
  return {
    cx: photo.width / 2,
    cy: photo.height / 2,
    radius: Math.hypot(photo.width, photo.height) / 2,
    zoom: fillingZoom(photo, k1, k2),
    k1,
    k2,
    red: lens.red / 1000,
    blue: lens.blue / 1000,
    f1: 0.9 * corners * (1 - farOut),
    f2: 0.9 * corners * farOut,
  };
}

/** From pixels of the straightened picture to pixels of the file. */
export function bent(lens: PlannedLens | undefined, [x, y]: Point): Point {
  if (!lens) return [x, y];
  const { cx, cy, radius, zoom, k1, k2 } = lens;
  const r = (Math.hypot(x - cx, y - cy) * zoom) / radius;
  const k = zoom * (1 + k1 * r * r + k2 * r ** 4);
  return [cx + (x - cx) * k, cy + (y - cy) * k];
}

/** The reverse: Newton steps along the radius. */
export function straightened(lens: PlannedLens | undefined, [x, y]: Point): Point {
  if (!lens) return [x, y];
  const { cx, cy, radius, zoom, k1, k2 } = lens;
  const far = Math.hypot(x - cx, y - cy) / radius;
  if (far < 1e-12) return [x, y];
  let r = far;
  for (let i = 0; i < 12; i++) r -= (spread(r, k1, k2) - far) / Math.max(0.05, slope(r, k1, k2));
  const k = r / far / zoom;
  return [cx + (x - cx) * k, cy + (y - cy) * k];
}

/**
 * The k1 that makes a line through these points of the file straight, other terms kept: the one with the least mean square distance from the
 * straight line through them, by golden sections.
 * @throws RangeError when the points lie too close together to tell.
 */
export function bendByLine(photo: Size, lens: Lens, points: Point[]): number {
  const [first, last] = [points[0], points[points.length - 1]];
  if (points.length < 3 || Math.hypot(last[0] - first[0], last[1] - first[1]) < 0.15 * Math.hypot(photo.width, photo.height))
    throw new RangeError('The line is too short to tell how the lens bends; draw along something long and straight near the edge.');
  const [cx, cy, radius] = [photo.width / 2, photo.height / 2, Math.hypot(photo.width, photo.height) / 2];
  const off = (k1: number): number => {
    const model = { cx, cy, radius, zoom: 1, k1, k2: lens.k2, red: 0, blue: 0, f1: 0, f2: 0 };
    return straightness(points.map((p) => straightened(model, p)));
  };
  const golden = (Math.sqrt(5) - 1) / 2;
  let [a, b] = [-0.25, 0.25];
  for (let i = 0; i < 40; i++) {
    const [c, d] = [b - golden * (b - a), a + golden * (b - a)];
    if (off(c) < off(d)) b = d;
    else a = c;
  }
  return Math.round(((a + b) / 2) * 1000) / 1000;
}

/** Mean square distance of points from their own best line, as a part of its length squared. */
export function straightness(points: Point[]): number {
  const n = points.length;
  const mx = points.reduce((s, p) => s + p[0], 0) / n;
  const my = points.reduce((s, p) => s + p[1], 0) / n;
  let [xx, xy, yy] = [0, 0, 0];
  for (const [x, y] of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const middle = (xx + yy) / 2;
  const least = middle - Math.sqrt(((xx - yy) / 2) ** 2 + xy * xy);
  return least / Math.max(1e-12, 2 * middle - least);
}
