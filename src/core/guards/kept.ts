import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { samplePhoto } from '../image/sample';
import type { Scratch } from '../image/tile';
import { Planes } from '../image/planes';
import { UNITS } from '../image/unit';
import { refine } from './guided';
import type { Kept } from './schema';

/** Radius of the place that a tap surely keeps, and how far it grows from there over an even ground, in sizes of the tip: somewhat beyond its ring. */
const SURE = 0.3;
const REACH = 0.6;
/** What a difference of colour costs: one of a tenth is as far as a good quarter of the tip. */
const STEEP = 2.8;

/**
 * What was kept by taps and strokes: each grows from where it lies along colours and edges, by geodesic distance over the photo (Bai & Sapiro 2007), about as far as
 * its size; strokes that leave something take back what lies nearer to them. Snapped to the photo's edges. A new plane.
 */
export function growKept(
  machine: Machine,
  scratch: Scratch,
  photo: Picture,
  size: { width: number; height: number },
  strokes: readonly Kept[],
): number {
  const { width, height } = size;
  const planes = new Planes(machine, scratch, width, height);
  const out = planes.make();
  planes.briefly(() => {
    const long = Math.max(width, height);
    const tile = scratch.tile({ x: 0, y: 0, width, height });
    scratch.take(64);
    samplePhoto(machine, photo, width / photo.width, tile);
    const guide: [number, number, number] = [tile.ptr, tile.ptr + tile.stride, tile.ptr + 2 * tile.stride];
    const calm = guide.map((plane) => {
      const at = planes.copy(plane);
      planes.blur(at, long / 900);
      return at;
    }) as [number, number, number];
    const pixels = (size: number) => (size / UNITS) * long;
    const tip = pixels(Math.max(...strokes.map((stroke) => stroke.size)));
    const spread = (keep: boolean) => {
      const chosen = strokes.filter((stroke) => stroke.keep === keep);
      if (chosen.length === 0) return null;
      const seeds = planes.make();
      for (const stroke of chosen) planes.strokeOver(seeds, stroke.points, Math.max(0.75, SURE * pixels(stroke.size)));
      return { seeds, distance: planes.geodesic(seeds, calm, tip * STEEP) };
    };
    const kept = spread(true);
    if (kept === null) return;
    const near = kept.distance;
    const reach = tip * REACH;
    const left = spread(false);
    if (left !== null) {
      // Further than what is to be left: not kept.
      planes.machine.kernels.mixIn(left.distance, near, planes.count, 1, -1, 0);
      planes.ramp(left.distance, -0.1 * tip, 0.1 * tip);
      // What it touches is left out, whatever keeps it.
      planes.without(left.distance, left.seeds);
    }
    planes.ramp(near, reach, 0.75 * reach);
    if (left !== null) planes.times(near, left.distance);
    refine(planes, guide, near, Math.max(2, long / 200), 4e-4);
    planes.put(near, out);
  });
  return out;
}
