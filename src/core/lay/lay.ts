import * as z from 'zod';
import { chain, invert, scaled, squareTo, type Projection } from '../image/projection';
import { isConvex, type Corners } from '../image/corners';
import type { Affine } from '../image/sample';
import { choice, share, slider, toggle } from '../schema';
import { unitOf } from '../image/unit';

/** Nominal long side of a generated material: one of its pixels is one u when tiled. */
export const NOMINAL = 1024;

export const laySchema = z.object({
  fit: choice(
    'Fit',
    [
      { value: 'cover', label: 'Cover' },
      { value: 'contain', label: 'Contain' },
      { value: 'stretch', label: 'Stretch' },
      { value: 'tile', label: 'Tile' },
    ],
    'cover',
    { help: 'Cover fills the photo whatever the size of the material; tile repeats it.' },
  ),
  scale: slider('Scale', 0.05, 8, 1, {
    unit: '%',
    factor: 100,
    step: 0.01,
    accepts: [1e-4, 1e4],
    help: 'Over 100 % pushes the material’s border outside.',
  }),
  stretchX: slider('Stretch across', 0.25, 4, 1, {
    unit: '%',
    factor: 100,
    step: 0.01,
    accepts: [1e-3, 1e3],
    help: 'Along the material’s own width.',
  }),
  stretchY: slider('Stretch down', 0.25, 4, 1, { unit: '%', factor: 100, step: 0.01, accepts: [1e-3, 1e3], help: 'Along its own height.' }),
  x: share('Across', 0, { min: -2, max: 2, accepts: [-1e4, 1e4], help: 'Moves it across the photo.' }),
  y: share('Down', 0, { min: -2, max: 2, accepts: [-1e4, 1e4], help: 'Moves it down the photo.' }),
  turn: slider('Turn', -180, 180, 0, { unit: '°', step: 0.5, help: 'Rotates the material clockwise.' }),
  flipX: toggle('Flip horizontal', false),
  flipY: toggle('Flip vertical', false),
  mirror: toggle('Mirror every other tile', false, {
    help: 'Edges that do not fit meet their own mirror image.',
    idle: ({ fit }) => (fit === 'tile' ? undefined : 'There is one tile only; choose Tile to repeat it.'),
  }),
  mix: toggle('Hide repeats', false, {
    help: 'Mixes the tiles, so that nobody sees them repeat.',
    absent: ({ fit, faces }) => fit !== 'tile' && !faces,
  }),
  faces: toggle('Scale with faces', false, { help: 'At 100 % it is as wide as each face.' }),
  /** Perspective: where the material's four corners lie, in fractions of it as it would lie without; clockwise from the left upper one. */
  corners: z
    .array(z.tuple([z.number().min(-100).max(100), z.number().min(-100).max(100)]))
    .length(4)
    .refine((corners) => isConvex(corners as Corners), 'the corners must go round without a dent')
    .optional(),
});
export type Lay = z.output<typeof laySchema>;

export interface Frame {
  /** Size of the whole piece in pixels at this scale, and pixels to one u. */
  width: number;
  height: number;
  unit: number;
}

/** A size in a source's own, nominal pixels. */
export interface Size {
  width: number;
  height: number;
}

/** Scale of a source's nominal pixels on the piece, across and down, before the lay's own scale. */
export function fitScale(lay: Pick<Lay, 'fit' | 'turn'>, nominal: Size, frame: Frame): [number, number] {
  // At a quarter turn the sides change places, so that a turned material still fits.
  const turned = Math.abs((((lay.turn % 180) + 180) % 180) - 90) < 1e-6;
  const kx = (turned ? frame.height : frame.width) / nominal.width;
  const ky = (turned ? frame.width : frame.height) / nominal.height;
  if (lay.fit === 'tile') return [frame.unit, frame.unit];
  if (lay.fit === 'stretch') return [kx, ky];
  const k = lay.fit === 'cover' ? Math.max(kx, ky) : Math.min(kx, ky);
  return [k, k];
}

/**
 * Map from piece pixels to the pixels of the picture in memory, which may be a larger or smaller rendering of the nominal one. Its centre
 * lies on the photo's centre moved by (x, y) of the photo's size, turned clockwise, flipped in its own axes.
 */
export function layMap(lay: Lay, nominal: Size, frame: Frame, held: Size = nominal): Affine {
  const [fx, fy] = fitScale(lay, nominal, frame);
  const sx = ((lay.flipX ? -1 : 1) * held.width) / nominal.width / (fx * lay.scale * lay.stretchX);
  const sy = ((lay.flipY ? -1 : 1) * held.height) / nominal.height / (fy * lay.scale * lay.stretchY);
  const turn = (lay.turn * Math.PI) / 180;
  const cx = frame.width * (0.5 + lay.x);
  const cy = frame.height * (0.5 + lay.y);
  const a = sx * Math.cos(turn);
  const b = -sy * Math.sin(turn);
  const c = sx * Math.sin(turn);
  const d = sy * Math.cos(turn);
  return { a, b, c, d, e: held.width / 2 - a * cx - c * cy, f: held.height / 2 - b * cx - d * cy };
}

/** The four corners of a lay, those of the material itself when no perspective is given. */
export const cornersOf = (lay: Pick<Lay, 'corners'>): Corners | null => (lay.corners as Corners | undefined) ?? null;

/** `layMap` with the lay's perspective, as a projective map; it is the affine one when there is none. */
export function layProjection(lay: Lay, nominal: Size, frame: Frame, held: Size = nominal): Projection {
  const { a, b, c, d, e, f } = layMap(lay, nominal, frame, held);
  const flat: Projection = [a, c, e, b, d, f, 0, 0, 1];
  const corners = cornersOf(lay);
  if (!corners) return flat;
  // In the order in which a point of the piece goes through them, last first.
  return chain(scaled(held.width, held.height), invert(squareTo(corners)), scaled(1 / held.width, 1 / held.height), flat);
}

/** From fractions of a laid source, before its perspective, to pixels of the piece. */
export function layPlace(lay: Lay, nominal: Size, frame: Frame): Projection {
  const { a, b, c, d, e, f } = layMap(lay, nominal, frame);
  return chain(invert([a, c, e, b, d, f, 0, 0, 1]), scaled(nominal.width, nominal.height));
}

/** How many pixels of the photo one pixel of a laid picture covers at most; over 2 it looks soft. `photo` is the readied photo's size. */
export function enlargement(lay: Lay, picture: Size, photo: Size): number {
  const unit = unitOf(photo);
  const [fx, fy] = fitScale(lay, picture, { ...photo, unit });
  return Math.max(fx * lay.stretchX, fy * lay.stretchY) * lay.scale * cornerSpread(lay);
}

/** How much larger than flat the longest side of a perspective is drawn. */
export function cornerSpread(lay: Pick<Lay, 'corners'>): number {
  const corners = cornersOf(lay);
  if (!corners) return 1;
  const sides = corners.map(([x, y], i) => Math.hypot(x - corners[(i + 1) % 4][0], y - corners[(i + 1) % 4][1]));
  return Math.max(1, ...sides);
}
