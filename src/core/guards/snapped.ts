import type { Picture } from '../image/picture';
import type { Planes } from '../image/planes';
import { samplePhoto } from '../image/sample';
import { UNITS } from '../image/unit';
import type { RegionStroke } from '../strokes/schema';
import { refine } from './guided';

/** In sizes of the tip: how far from its path a stroke surely goes, and how far from there over an even ground, to just inside its ring. */
const SURE = 0.15;
const REACH = 0.33;
/** What a difference of colour costs: one of a tenth is nearly as far as half the tip. */
const STEEP = 4;

/**
 * Lays a stroke on a region's plane so that its rim follows the edges of the photo: from its path it spreads by geodesic distance over the colours (Bai
 * & Sapiro 2007) as far as its tip is wide.
 * @param whole the region's planes, at whose size the photo is looked at
 */
export function laySnapped(whole: Planes, plane: number, photo: Picture, { does, size, level, strength, points }: RegionStroke): void {
  const { machine, scratch, width, height } = whole;
  const tip = Math.max(2, (size / UNITS) * Math.max(width, height));
  const path = thinned(
    points.map(([x, y]) => [x * width, y * height]),
    tip / 16,
  );
  whole.briefly(() => {
    const near = whole.around(path, tip);
    const tile = scratch.tile({ x: near.x, y: near.y, width: near.width, height: near.height });
    scratch.take(64);
    samplePhoto(machine, photo, width / photo.width, tile);
    const guide: [number, number, number] = [tile.ptr, tile.ptr + tile.stride, tile.ptr + 2 * tile.stride];
    const calm = guide.map((colour) => {
      const at = near.copy(colour);
      near.blur(at, Math.max(width, height) / 900);
      return at;
    }) as [number, number, number];
    const seeds = near.make();
    near.strokeOver(
      seeds,
      path.map(([x, y]) => [x / width, y / height] as const),
      Math.max(0.75, SURE * tip),
      whole,
    );
    const cover = near.geodesic(seeds, calm, tip * STEEP);
    near.ramp(cover, REACH * tip, 0.75 * REACH * tip);
    refine(near, guide, cover, Math.max(2, tip / 12), 4e-4);
    near.change(whole, plane, (there) => {
      machine.kernels.applyStroke(there, cover, near.count, does === 'put' ? 1 : does === 'take' ? 0 : level, strength);
    });
  });
}

/** A path without the points that lie close to the one before; its end stays. */
function thinned(points: readonly (readonly [number, number])[], apart: number): (readonly [number, number])[] {
  const out = [points[0]];
  points.forEach((point, i) => {
    const last = out[out.length - 1];
    if (i === points.length - 1 || Math.hypot(point[0] - last[0], point[1] - last[1]) >= apart) out.push(point);
  });
  return out;
}
