import { apply, chain, invert, moved, multiply, scaled, squareTo, turned, type Point, type Projection } from '../image/projection';
import { bent, planLens, straightened } from './lens';
import { neutralReady, type Ready } from './schema';

export interface Size {
  width: number;
  height: number;
}

type Geometry = Pick<Ready, 'quarter' | 'flip' | 'perspective' | 'crop'>;
type WithLens = Geometry & Pick<Ready, 'lens'>;

/** Size of the photo after quarter turns. */
export function quarteredSize(photo: Size, { quarter }: Pick<Ready, 'quarter'>): Size {
  return quarter % 2 === 0 ? { width: photo.width, height: photo.height } : { width: photo.height, height: photo.width };
}

/** From pixels after quarter turns and flip to pixels of the file. */
function quarterMap(photo: Size, { quarter, flip }: Geometry): Projection {
  const { width: W, height: H } = photo;
  const back: Projection[] = [
    [1, 0, 0, 0, 1, 0, 0, 0, 1],
    [0, 1, 0, -1, 0, H, 0, 0, 1],
    [-1, 0, W, 0, -1, H, 0, 0, 1],
    [0, -1, W, 1, 0, 0, 0, 0, 1],
  ];
  const map = back[((quarter % 4) + 4) % 4];
  return flip ? multiply(map, [-1, 0, quarteredSize(photo, { quarter }).width, 0, 1, 0, 0, 0, 1]) : map;
}

/** From pixels of the upright photo (quarter turns, flip and perspective done) to pixels of the file. */
export function uprightMap(photo: Size, ready: Geometry): Projection {
  const { width, height } = quarteredSize(photo, ready);
  const map = quarterMap(photo, ready);
  if (!ready.perspective) return map;
  return chain(map, scaled(width, height), squareTo(ready.perspective.corners), scaled(1 / width, 1 / height));
}

/** Size of the readied photo in pixels of the file. */
export function readiedSize(photo: Size, ready: Geometry = neutralReady): Size {
  const { width, height } = quarteredSize(photo, ready);
  return { width: Math.max(1, Math.round(ready.crop.w * width)), height: Math.max(1, Math.round(ready.crop.h * height)) };
}

/** Size of a piece: that of its readied photo. */
export const pieceSize = ({ photo, ready }: { photo: Size; ready?: Geometry }): Size => readiedSize(photo, ready);

/** From pixels of the readied photo to pixels of the upright one: turned about the crop's centre. */
export function cropMap(photo: Size, ready: Geometry): Projection {
  const { width, height } = quarteredSize(photo, ready);
  const { width: w, height: h } = readiedSize(photo, ready);
  const { crop } = ready;
  // A frame that is not turned begins on a whole pixel, so that its pixels are the photo's own.
  if (crop.turn === 0) return moved(Math.round(crop.x * width), Math.round(crop.y * height));
  return chain(moved((crop.x + crop.w / 2) * width, (crop.y + crop.h / 2) * height), turned(crop.turn), moved(-w / 2, -h / 2));
}

/** From pixels of the readied photo to pixels of the file, its lens put right. */
export const readiedMap = (photo: Size, ready: Geometry = neutralReady): Projection => multiply(uprightMap(photo, ready), cropMap(photo, ready));

/** A point in fractions of the readied photo, in pixels of the file as it was taken: through the lens too. */
export function toFile(photo: Size, ready: WithLens, [x, y]: Point): Point {
  const { width, height } = readiedSize(photo, ready);
  return bent(planLens(photo, ready.lens), apply(readiedMap(photo, ready), [x * width, y * height]));
}

/** The reverse of `toFile`. */
export function fromFile(photo: Size, ready: WithLens, point: Point): Point {
  const { width, height } = readiedSize(photo, ready);
  const [x, y] = apply(invert(readiedMap(photo, ready)), straightened(planLens(photo, ready.lens), point));
  return [x / width, y / height];
}

/** From fractions of one readied photo to fractions of another of the same file. */
export function between(photo: Size, from: Geometry, to: Geometry): Projection {
  const a = readiedSize(photo, from);
  const b = readiedSize(photo, to);
  return chain(scaled(1 / b.width, 1 / b.height), invert(readiedMap(photo, to)), readiedMap(photo, from), scaled(a.width, a.height));
}

/** Corners of the file in pixels of the upright photo: where there is picture. In order around it. */
export function outline(photo: Size, ready: Geometry): Point[] {
  const back = invert(uprightMap(photo, ready));
  const corners: Point[] = [
    [0, 0],
    [photo.width, 0],
    [photo.width, photo.height],
    [0, photo.height],
  ];
  return corners.map((p) => apply(back, p));
}
