import type { Region } from '../../../image/tile';
import { grown, onGrid, type Frame } from '../frame';
import { defineOperation, type Making } from '../operation';

/** Below this many pixels a blur is not seen. */
const LEAST = 0.15;
/** From this many pixels on it is done on a plane of half the size, where the difference cannot be seen. */
const WIDE = 4;
/** Blurs over this part of the long side are taken from the coarse sheet. */
const FAR = 2.5 / 1024;

/** Averaging pairs has a variance of 1/4 pixel², 1/16 on the reduced plane. */
const halved = (sigma: number) => Math.sqrt((sigma * sigma) / 4 - 0.0625);

/** How often a plane is halved for a blur, and the blur that is left to do on it. */
function halvingsOf(sigma: number): { times: number; left: number } {
  let times = 0;
  for (; sigma > WIDE; times++) sigma = halved(sigma);
  return { times, left: sigma };
}

/** The part of its input that a blur reads for a region: all its halved planes lie on the same grid, wherever the region begins. */
function readsOf(sigma: number, frame: Frame, region: Region): Region {
  const px = sigma * frame.size;
  if (px < LEAST) return region;
  const { times, left } = halvingsOf(px);
  return onGrid(grown(region, (Math.ceil(3 * left) + 4) << times), frame, 4 << times, 1 << times);
}

interface BlurParams {
  /** In fractions of the long side. */
  sigma: number;
  /** Large sheets take it from the smaller drawing because it is defined there, not to spare work. */
  isDecided?: boolean;
}

/** Gaussian blur. */
export const blurred = defineOperation<BlurParams>({
  name: 'blurred',
  coarse: ({ sigma, isDecided }) => (sigma >= FAR || isDecided ? 'instead' : undefined),
  reads: ({ sigma }, frame, region) => readsOf(sigma, frame, region),
  run: (making, { sigma }) => {
    const { machine, frame, region, inputs, out, wrap, grab } = making;
    const { ptr, region: from } = inputs[0];
    const px = sigma * frame.size;
    const isWhole = region.width === frame.width && region.height === frame.height;
    const part = isWhole ? region : readsOf(sigma, frame, region);
    const crop = (at: number, of: Region, wanted: Region, to: number) =>
      machine.kernels.cropPlane(at, of.width, wanted.x - of.x, wanted.y - of.y, to, wanted.width, wanted.height);
    if (isWhole || px < LEAST) {
      crop(ptr, from, region, out[0]);
      if (px >= LEAST) blurPlane(making, out[0], part.width, part.height, px, wrap);
      return;
    }
    const copy = grab(part.width * part.height * 4);
    crop(ptr, from, part, copy);
    blurPlane(making, copy, part.width, part.height, px, wrap);
    crop(copy, part, region, out[0]);
  },
});

function blurPlane(making: Making, ptr: number, w: number, h: number, sigma: number, wrap: boolean): void {
  const { grab, table } = making;
  const { kernels } = making.machine;
  if (sigma > WIDE && w % 8 === 0 && h % 2 === 0 && Math.min(w, h) >= 32) {
    const half = grab(w * h + 64);
    kernels.shrink(ptr, w, h, half);
    blurPlane(making, half, w / 2, h / 2, halved(sigma), wrap);
    kernels.enlarge(half, w / 2, h / 2, ptr, w, h, +wrap, grab(w * 16 + 64));
    return;
  }
  const radius = Math.ceil(3 * sigma);
  const taps = new Float32Array(2 * radius + 1);
  let sum = 0;
  for (let i = -radius; i <= radius; i++) sum += taps[i + radius] = Math.exp(-(i * i) / (2 * sigma * sigma));
  for (let i = 0; i < taps.length; i++) taps[i] /= sum;
  const temp = grab(w * h * 4);
  const edge = grab((w + 2 * radius + 8) * 4);
  const t = table(taps);
  kernels.convolveRows(ptr, temp, w, h, t, radius, +wrap, edge);
  kernels.convolveColumns(temp, ptr, w, h, t, radius, +wrap);
}
