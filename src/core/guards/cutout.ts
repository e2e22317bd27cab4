import type { Machine } from '../image/machine';
import { levelUpTo, type Level, type Picture } from '../image/picture';
import { samplePhoto } from '../image/sample';
import { Scratch } from '../image/tile';
import { applyModel, guidedModel } from './guided';
import { Planes } from '../image/planes';
import { regionsScratch } from './regions';
import type { Guards } from './schema';

/** Largest long side of a cut-out's alpha, in pixels. */
export const ALPHA_SIDE = 3000;

export interface CutoutOrder {
  photo: Picture;
  /** Where the subject is, as it was found and painted: a grey picture of the regions' size. */
  subject: Picture;
  hairs: Guards['hairs'];
}

/** The level of a photo on which alpha is drawn. */
export const alphaLevel = (photo: Picture): Level => levelUpTo(photo, ALPHA_SIDE);

/**
 * A subject's alpha at a size at which hair is seen, and the colour of its edge against what lies behind. The subject's map, drawn to the photo by a
 * guided filter on the small picture, is read on the large one (He & Sun 2015); along strokes on hair with a wider window and for smaller
 * differences. The colours in front and behind are means weighted by alpha (Forte & Pitié, Approximate Fast Foreground Colour Estimation, 2021).
 */
export function drawCutout(machine: Machine, { photo, subject, hairs }: CutoutOrder, alpha: Picture, edge: Picture, scratchAt: number): void {
  const { width, height } = edge;
  const { kernels } = machine;
  const scratch = new Scratch(machine, scratchAt, scratchAt + regionsScratch({ width, height }));
  const planes = new Planes(machine, scratch, width, height);
  const long = Math.max(width, height);
  const read = (picture: Picture) => {
    const tile = scratch.tile({ x: 0, y: 0, width, height });
    scratch.take(64);
    samplePhoto(machine, picture, width / picture.width, tile);
    return [tile.ptr, tile.ptr + tile.stride, tile.ptr + 2 * tile.stride] as [number, number, number];
  };
  const guide = read(photo);
  const mask = planes.copy(read(subject)[0]);
  const { at, width: w, height: h } = alphaLevel(photo);
  const model = guidedModel(planes, guide, mask, Math.max(2, long / 130), 3e-5);
  if (hairs.length > 0) mixAlongHair(planes, guide, mask, model, hairs);
  const [ar, ag, ab] = model.slopes;
  const { offset } = model;
  kernels.modelOn({ pixels: at, w, h, ar, ag, ab, offset, sw: width, sh: height, low: 0.06, high: 0.94, dst: alpha.levels[0] });

  // Colours in front of and behind the edge: the small alpha is that of the same model.
  const small = applyModel(planes, guide, model);
  const behind = planes.copy(small);
  planes.invert(behind);
  const mean = (weight: number) => {
    const out: [number, number, number] = [planes.make(), planes.make(), planes.make()];
    const radius = Math.max(3, long / 50);
    planes.briefly(() => {
      // Only pixels that are clearly in front or behind, because those on the edge are mixed.
      const firm = planes.product(weight, weight);
      planes.times(firm, weight);
      const under = planes.mean(firm, radius);
      kernels.mixIn(under, under, planes.count, 1, 0, 1e-3);
      kernels.power(under, planes.count, -1);
      guide.forEach((plane, i) => {
        planes.briefly(() => planes.put(planes.mean(planes.product(plane, firm), radius), out[i]));
        planes.times(out[i], under);
      });
    });
    return out;
  };
  kernels.signedPicture(...mean(small), ...mean(behind), edge.levels[0], width * height);
}

function mixAlongHair(
  planes: Planes,
  guide: [number, number, number],
  mask: number,
  model: ReturnType<typeof guidedModel>,
  hairs: Guards['hairs'],
): void {
  const { kernels } = planes.machine;
  const long = Math.max(planes.width, planes.height);
  const along = planes.make();
  for (const { points, size } of hairs) planes.strokeOver(along, points, (size * long) / 4000);
  planes.blur(along, long / 300);
  planes.briefly(() => {
    const fine = guidedModel(planes, guide, mask, Math.max(4, long / 45), 1e-6);
    model.slopes.forEach((slope, i) => kernels.lerpTo(slope, fine.slopes[i], along, planes.count));
    kernels.lerpTo(model.offset, fine.offset, along, planes.count);
  });
}
