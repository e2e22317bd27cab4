import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import type { Need } from '../graph/needs';
import type { InputSpec } from '../graph/node';
import { blurPlane, blurReach } from '../image/blur';
import { grow, type Tile } from '../image/tile';
import { laySchema, type Lay } from '../lay/lay';
import { fillLaid } from '../lay/laid';
import { choice, slider, type ControlMeta } from '../schema';
import { putChannel, softLuma, type Channel } from './soften';

/** What a treatment can read as a map of heights or shifts. */
const KINDS = [
  { value: 'below', label: 'Coats below' },
  { value: 'photo', label: 'The photo' },
  { value: 'own', label: 'Itself' },
  { value: 'height', label: 'Its height' },
  { value: 'picture', label: 'Another material or picture' },
] as const;
export type MapKind = (typeof KINDS)[number]['value'];

export const mapChoices = (...kinds: MapKind[]) =>
  kinds.map((kind) => KINDS.find(({ value }) => value === kind) as { value: MapKind; label: string });

const withoutPicture: ControlMeta['absent'] = ({ map }) => map !== 'picture';
const isHeight: ControlMeta['absent'] = ({ map }) => map === 'height' || map === 'form';

/** Which material or picture is read, and how; nothing of it counts unless the map is `picture`. */
export const mapFields = {
  /** A generator of the shelf, */
  material: z
    .object({ id: z.string().max(200), seed: z.number().int().min(0).max(1e9).default(1), params: z.record(z.string(), z.unknown()).default({}) })
    .optional(),
  /** or an imported picture: file name, relative to the recipe; inside a piece the key of a kept picture. */
  file: z.string().max(500).optional(),
  fit: choice(
    'Fit the map',
    [
      { value: 'cover', label: 'Cover' },
      { value: 'stretch', label: 'Stretch' },
      { value: 'tile', label: 'Tile' },
    ],
    'cover',
    { absent: withoutPicture },
  ),
  mapScale: slider('Map scale', 0.1, 8, 1, { unit: '%', factor: 100, step: 0.01, accepts: [1e-3, 1e3], absent: withoutPicture }),
  channel: choice(
    'Channel',
    [
      { value: 'luma', label: 'Brightness' },
      { value: 'red', label: 'Red' },
      { value: 'green', label: 'Green' },
      { value: 'blue', label: 'Blue' },
    ],
    'luma',
    { absent: isHeight },
  ),
};

export interface MapParams {
  map: MapKind | 'form';
  material?: { id: string; seed: number; params: Record<string, unknown> };
  file?: string;
  fit: 'cover' | 'stretch' | 'tile';
  mapScale: number;
  channel: Channel;
}

const layOf = ({ fit, mapScale }: MapParams): Lay => laySchema.parse({ fit, scale: mapScale });

export function mapNeeds(p: MapParams): Record<string, Need> {
  if (p.map !== 'picture') return {};
  if (p.file) return { map: { need: 'picture', file: p.file } };
  if (p.material) return { map: { need: 'material', ...p.material, lay: layOf(p), part: 'height' } };
  return {};
}

export const mapInputs = ({ map }: MapParams): Record<string, InputSpec> => (map === 'own' || map === 'picture' ? {} : { [map]: map });

/** Whether there is something to read. */
export const hasMap = (p: MapParams): boolean => p.map !== 'picture' || p.file !== undefined || p.material !== undefined;

/** A map over a tile, softened by a standard deviation in pixels: a plane that the caller releases. */
export function mapPlane(context: DrawContext, p: MapParams, tile: Tile, sigma: number): number {
  const { machine, scratch } = context;
  if (p.map === 'form') throw new Error('The form of a face is not a plane of heights.');
  if (p.map !== 'picture') return softLuma(context, p.map, tile, sigma, p.map === 'height' ? 'luma' : p.channel);
  const out = scratch.plane(tile.count + 8);
  const mark = scratch.mark();
  // A laid picture can be drawn anywhere: it is read as far around the tile as the Gaussian does.
  const rim = blurReach(sigma);
  const { x, y, width, height } = grow(tile, rim);
  const wide = scratch.tile({ x, y, width, height });
  fillLaid(context, wide, context.needed('map', 'picture'), layOf(p));
  const plane = scratch.plane(wide.count + 8);
  putChannel(context, wide, plane, p.channel);
  blurPlane(machine, scratch, plane, width, height, sigma);
  machine.kernels.copyWindow(plane + (rim * width + rim) * 4, width, out, tile.width, tile.width, tile.height);
  scratch.release(mark);
  return out;
}

/** Leaves a tile as grey: the plane that something else reads, shown to the person. */
export function showPlane({ machine }: DrawContext, { ptr, stride, width, height, count }: Tile, plane: number): void {
  for (const c of [0, 1, 2]) machine.kernels.copyWindow(plane, width, ptr + c * stride, width, width, height);
  machine.kernels.fill(ptr + 3 * stride, count, 1);
}
