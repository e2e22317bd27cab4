import { apply, invert, type Point } from '../image/projection';
import { isConvex, wholeCorners, type Corners } from '../image/corners';
import { cornersOf, layPlace, type Frame, type Lay, type Size } from './lay';

// What hands do to a lay: each takes where the fingers were and where they are, in pixels of the photo, and gives what changes.

const limit = (x: number, lo: number, hi: number) => Math.min(hi, Math.max(lo, x));
const fine = (x: number) => Math.round(x * 1e5) / 1e5;
const scaleOf = (x: number) => limit(fine(x), 0.05, 8);
const stretchOf = (x: number) => limit(fine(x), 0.25, 4);
const placeOf = (x: number) => limit(fine(x), -2, 2);

/** Draws an angle to the nearest right angle when it is within `reach` degrees of it. */
export function snapTurn(degrees: number, reach = 3): number {
  const turned = ((((degrees + 180) % 360) + 360) % 360) - 180;
  const right = Math.round(turned / 90) * 90;
  const value = Math.abs(turned - right) <= reach ? right : turned;
  return value === -180 ? 180 : value;
}

/** The lay's centre in pixels of the photo. */
export const centreOf = (lay: Lay, photo: Size): Point => [photo.width * (0.5 + lay.x), photo.height * (0.5 + lay.y)];

export function movedBy(lay: Lay, photo: Size, from: Point, to: Point): Partial<Lay> {
  return { x: placeOf(lay.x + (to[0] - from[0]) / photo.width), y: placeOf(lay.y + (to[1] - from[1]) / photo.height) };
}

/** Larger and smaller about the centre. */
export function scaledBy(lay: Lay, photo: Size, from: Point, to: Point): Partial<Lay> {
  const [cx, cy] = centreOf(lay, photo);
  const before = Math.hypot(from[0] - cx, from[1] - cy);
  return before < 1e-6 ? {} : { scale: scaleOf((lay.scale * Math.hypot(to[0] - cx, to[1] - cy)) / before) };
}

/** Turned about the centre; held at right angles within 3°, and at every 15° when `steps` are asked for. */
export function turnedBy(lay: Lay, photo: Size, from: Point, to: Point, steps = false): Partial<Lay> {
  const [cx, cy] = centreOf(lay, photo);
  const by = Math.atan2(to[1] - cy, to[0] - cx) - Math.atan2(from[1] - cy, from[0] - cx);
  const degrees = lay.turn + (by * 180) / Math.PI;
  return { turn: steps ? snapTurn(Math.round(degrees / 15) * 15, 0) : Math.round(snapTurn(degrees) * 10) / 10 };
}

/** Stretched along the material's own width (`x`) or height. */
export function stretchedBy(lay: Lay, photo: Size, axis: 'x' | 'y', from: Point, to: Point): Partial<Lay> {
  const [cx, cy] = centreOf(lay, photo);
  const turn = (lay.turn * Math.PI) / 180;
  const [ux, uy] = axis === 'x' ? [Math.cos(turn), Math.sin(turn)] : [-Math.sin(turn), Math.cos(turn)];
  const along = ([x, y]: Point) => (x - cx) * ux + (y - cy) * uy;
  const before = along(from);
  if (Math.abs(before) < 1e-6) return {};
  const by = Math.abs(along(to) / before);
  return axis === 'x' ? { stretchX: stretchOf(lay.stretchX * by) } : { stretchY: stretchOf(lay.stretchY * by) };
}

/** One corner of the perspective moved; nothing changes when the four would no longer go round without a dent. */
export function cornerBy(lay: Lay, nominal: Size, frame: Frame, corner: number, from: Point, to: Point): Partial<Lay> {
  const back = invert(layPlace(lay, nominal, frame));
  const [[ax, ay], [bx, by]] = [apply(back, from), apply(back, to)];
  const next = (cornersOf(lay) ?? wholeCorners).map(([x, y], i) => (i === corner ? [fine(x + bx - ax), fine(y + by - ay)] : [x, y])) as Corners;
  return isConvex(next) && next.flat().every((v) => Math.abs(v) <= 100) ? { corners: next } : {};
}

/** Two fingers: what lay under them stays under them. */
export function pinched(lay: Lay, photo: Size, from: [Point, Point], to: [Point, Point]): Partial<Lay> {
  const span = ([[ax, ay], [bx, by]]: [Point, Point]) => [bx - ax, by - ay];
  const middle = ([[ax, ay], [bx, by]]: [Point, Point]) => [(ax + bx) / 2, (ay + by) / 2];
  const [fx, fy] = span(from);
  const [tx, ty] = span(to);
  const was = Math.hypot(fx, fy);
  if (was < 1e-6) return {};
  const scale = scaleOf((lay.scale * Math.hypot(tx, ty)) / was);
  const turn = Math.round(snapTurn(lay.turn + ((Math.atan2(ty, tx) - Math.atan2(fy, fx)) * 180) / Math.PI) * 10) / 10;
  // Where the centre goes follows from what scale and turn have become after their limits.
  const k = scale / lay.scale;
  const angle = ((turn - lay.turn) * Math.PI) / 180;
  const [cx, cy] = centreOf(lay, photo);
  const [[mx, my], [nx, ny]] = [middle(from), middle(to)];
  const [dx, dy] = [(cx - mx) * k, (cy - my) * k];
  const x = nx + dx * Math.cos(angle) - dy * Math.sin(angle);
  const y = ny + dx * Math.sin(angle) + dy * Math.cos(angle);
  return { scale, turn, x: placeOf(x / photo.width - 0.5), y: placeOf(y / photo.height - 0.5) };
}
