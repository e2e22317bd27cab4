import type { Machine } from '../../image/machine';
import { buildLevels, pictureAt, pixelBytes, smallCopy, type Picture } from '../../image/picture';
import { findBorder, type Border } from './border';
import { lightGains } from './even';
import { fittedSize, overlapOf, trimmed, type Fitting } from './schema';
import { endError, enlargedCut, leastCut } from './seam';

/** Long sides of the small copies on which light and seams are looked for. */
const LIGHT = 96;
const SEAM = 640;
const BORDER = 640;
/** Width over which the two sides of a cut run into one another, in parts of the long side. */
const FEATHER = 0.004;

export interface RawPicture {
  at: number;
  width: number;
  height: number;
  deep: boolean;
}

/** Bytes of working memory that `fitPicture` needs at `scratch`. */
export const fitScratch = (width: number, height: number): number => Math.max(width, height) * 4 + LIGHT * LIGHT * 4 + 64;

/**
 * Makes a picture fit as a material: trimmed, without colour, evenly lit, seamless. `target` has room for a picture of the trimmed size with its
 * levels; the result begins there. Its levels are not built.
 */
export function fitPicture(machine: Machine, raw: RawPicture, fitting: Fitting, target: number, scratch: number): Picture {
  const { kernels } = machine;
  const { deep } = raw;
  const part = trimmed(raw.width, raw.height, fitting);
  const { width, height } = part;
  const from = raw.at + (part.y * raw.width + part.x) * pixelBytes(deep);
  kernels.copyPart(from, raw.width, target, width, height, Number(deep), Number(fitting.grey));
  const whole = pictureAt(target, width, height, undefined, deep);
  if (fitting.even > 0) {
    buildLevels(machine, whole);
    const small = smallCopy(machine, whole, LIGHT);
    machine.floats.set(lightGains(small, fitting.even), scratch / 4);
    kernels.evenLight(target, width, height, Number(deep), scratch, small.width, small.height);
  }
  if (fitting.seamless) {
    buildLevels(machine, whole);
    stitch(machine, whole, 'across', scratch);
    const narrow = pictureAt(target, width - overlapOf(width), height, undefined, deep);
    buildLevels(machine, narrow);
    stitch(machine, narrow, 'down', scratch);
  }
  const size = fittedSize(raw.width, raw.height, fitting);
  return pictureAt(target, size.width, size.height, undefined, deep);
}

function stitch(machine: Machine, picture: Picture, way: 'across' | 'down', scratch: number): void {
  const { width, height, levels, deep } = picture;
  const across = way === 'across';
  const small = smallCopy(machine, picture, SEAM);
  const [side, lines] = across ? [width, height] : [height, width];
  const [smallSide, smallLines] = across ? [small.width, small.height] : [small.height, small.width];
  const overlap = overlapOf(side);
  const smallOverlap = Math.max(1, Math.round((overlap / side) * smallSide));
  // A cut across the whole width must meet itself, or the corner of four tiles would show.
  const cut = leastCut(smallLines, smallOverlap, endError(small, smallOverlap, across), !across);
  const feather = Math.max(2, Math.max(width, height) * FEATHER);
  const margin = Math.min(overlap / 2, feather);
  machine.floats.set(enlargedCut(cut, smallOverlap, lines, overlap, margin), scratch / 4);
  const run = across ? machine.kernels.stitchAcross : machine.kernels.stitchDown;
  run(levels[0], width, height, overlap, scratch, feather, Number(deep ?? false));
}

/** The plain border of a picture whose levels are built; null when it has none. */
export const borderOf = (machine: Machine, picture: Picture): Border | null => findBorder(smallCopy(machine, picture, BORDER));
