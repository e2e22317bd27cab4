import type { Machine } from '../image/machine';
import { levelUpTo, type Level, type Picture } from '../image/picture';
import { samplePhoto } from '../image/sample';
import { Scratch } from '../image/tile';
import { guidedModel, refine } from './guided';
import { uncertainBand } from './band';
import { edgeColours, matte } from './matting';
import { UNITS } from '../image/unit';
import { Planes } from '../image/planes';
import { regionsScratch } from './regions';

/** Largest long side of a cut-out's alpha, in pixels. */
export const ALPHA_SIDE = 3000;

export interface CutoutOrder {
  photo: Picture;
  /** Where the subject is, as it was found and painted: a grey picture of the regions' size. */
  subject: Picture;
  hairs: readonly Path[];
  /** Strokes by which the subject was painted on, at full strength. */
  painted: readonly Path[];
}

/** A stroke in fractions of the photo, its size in u. */
export interface Path {
  points: readonly (readonly [number, number])[];
  size: number;
}

/** The level of a photo on which alpha is drawn. */
export const alphaLevel = (photo: Picture): Level => levelUpTo(photo, ALPHA_SIDE);

/**
 * A subject's alpha at a size at which hair is seen, and the colour of its edge against what lies behind. Alpha is solved on the small picture and read
 * on the large one as a linear model of its colours (He & Sun, Fast Guided Filter, 2015).
 */
export function drawCutout(
  machine: Machine,
  { photo, subject, hairs, painted }: CutoutOrder,
  alpha: Picture,
  edge: Picture,
  scratchAt: number,
): void {
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
  const found = planes.copy(read(subject)[0]);
  const stroked = (strokes: readonly Path[]) => {
    const plane = planes.make();
    for (const { points, size } of strokes) planes.strokeOver(plane, points, (size * long) / UNITS / 2);
    return plane;
  };
  const hair = stroked(hairs);
  // What was painted is known well within the stroke, not at its rim.
  const settled = stroked(painted.map(({ points, size }) => ({ points, size: size * 0.6 })));
  const band = uncertainBand(planes, found, hair, settled);
  refine(planes, guide, found, Math.max(2, long / 130), 3e-5);
  const solved = matte(planes, guide, { band, found, hair });
  const { at, width: w, height: h } = alphaLevel(photo);
  planes.briefly(() => {
    // Over windows of three pixels alpha is a linear function of the colours: so it was solved.
    const model = guidedModel(planes, guide, solved ?? found, 1, 1e-5);
    const [ar, ag, ab] = model.slopes;
    kernels.modelOn({ pixels: at, w, h, ar, ag, ab, offset: model.offset, sw: width, sh: height, low: 0.02, high: 0.98, dst: alpha.levels[0] });
  });
  const { front, behind } = edgeColours(planes, guide, solved ?? found);
  kernels.signedPicture(...front, ...behind, edge.levels[0], width * height);
}
