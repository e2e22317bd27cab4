import * as z from 'zod';
import type { Affine } from '../image/sample';
import { choice, share, slider, toggle } from '../schema';

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
    help: 'Past 100 % the material’s own border falls outside.',
  }),
  stretchX: slider('Stretch across', 0.25, 4, 1, {
    unit: '%',
    factor: 100,
    step: 0.01,
    accepts: [1e-3, 1e3],
    help: 'Along the material’s own width.',
  }),
  stretchY: slider('Stretch down', 0.25, 4, 1, { unit: '%', factor: 100, step: 0.01, accepts: [1e-3, 1e3], help: 'Along its own height.' }),
  x: share('Across', 0, { min: -2, max: 2, accepts: [-1e4, 1e4], help: 'Moved in parts of the photo’s width.' }),
  y: share('Down', 0, { min: -2, max: 2, accepts: [-1e4, 1e4], help: 'Moved in parts of the photo’s height.' }),
  turn: slider('Turn', -180, 180, 0, { unit: '°', step: 0.5, help: 'Clockwise; holds for a moment at right angles.' }),
  flipX: toggle('Flip across', false),
  flipY: toggle('Flip down', false),
});
export type Lay = z.output<typeof laySchema>;

interface Frame {
  /** Size of the whole piece in pixels at this scale, and pixels to one u. */
  width: number;
  height: number;
  unit: number;
}

/** A size in a source's own, nominal pixels. */
interface Size {
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
