import { linearTable } from '../color/srgb';
import { blurPlane } from '../image/blur';
import type { Machine } from '../image/machine';
import { padded, Scratch } from '../image/tile';

/** What is compared: two RGBA8 pictures of one size in kernel memory, and grey ones as masks. */
export interface UnchangedOrder {
  photo: number;
  result: number;
  masks: number[];
  width: number;
  height: number;
  /** Rows that count; those around them are there for the windows of the similarity. */
  top: number;
  bottom: number;
}

/** Sums under one mask, which add up over bands of a picture. */
export interface Tally {
  weight: number;
  difference: number;
  alike: number;
  /** Weights by difference, in steps of 1/20. */
  counts: number[];
}

export const BINS = 1200;

/** Radius of the window of structural similarity: a Gaussian of 1.5 px, 11 × 11 (Wang et al. 2004). */
export const WINDOW = 5;

export const unchangedScratch = (width: number, height: number): number => (padded(width, height) + 16) * 4 * 10 + BINS * 4 + 2 ** 18;

/** Adds up CIEDE2000 and structural similarity of luma between two pictures under each mask. */
export function tallyUnchanged(machine: Machine, { photo, result, masks, width, height, top, bottom }: UnchangedOrder, scratchAt: number): Tally[] {
  const { kernels, floats, memory } = machine;
  const scratch = new Scratch(machine, scratchAt, scratchAt + unchangedScratch(width, height));
  const count = padded(width, height);
  const plane = () => scratch.plane(count + 8, 0);
  const linear = scratch.take(1024);
  floats.set(linearTable, linear / 4);
  const delta = plane();
  kernels.differences(photo, result, delta, width * height, linear, scratch.take(64));
  const counts = scratch.take(1024);
  const [x, y] = [photo, result].map((pixels) => {
    const luma = plane();
    kernels.lumaOf(pixels, width * height, luma, counts);
    return luma;
  });
  const [xx, yy, xy] = [
    [x, x],
    [y, y],
    [x, y],
  ].map(([a, b]) => {
    const product = plane();
    kernels.multiplied(a, b, product, count);
    return product;
  });
  for (const p of [x, y, xx, yy, xy]) blurPlane(machine, scratch, p, width, height, 1.5);
  const alike = plane();
  kernels.similarity(x, y, xx, yy, xy, alike, count);
  const sums = scratch.take(32);
  const bins = scratch.take(BINS * 4);
  return masks.map((mask) => {
    new Float64Array(memory.buffer, sums, 3).fill(0);
    floats.fill(0, bins / 4, bins / 4 + BINS);
    kernels.tally({ delta, alike, mask, w: width, left: 0, right: width, top, bottom, sums, histogram: bins, bins: BINS });
    const [weight, difference, similar] = new Float64Array(memory.buffer, sums, 3);
    return { weight, difference, alike: similar, counts: Array.from(floats.subarray(bins / 4, bins / 4 + BINS)) };
  });
}

export function addTallies(a: Tally, b: Tally): Tally {
  return {
    weight: a.weight + b.weight,
    difference: a.difference + b.difference,
    alike: a.alike + b.alike,
    counts: a.counts.map((v, i) => v + b.counts[i]),
  };
}

/** How much of a region was kept. */
export interface Unchanged {
  /** CIEDE2000: mean, and what 95 % of it stay under. */
  mean: number;
  p95: number;
  /** Mean structural similarity of luma, 1 when equal. */
  ssim: number;
  /** Pixels measured, by weight. */
  pixels: number;
}

/** null where a region has hardly a pixel. */
export function unchangedOf({ weight, difference, alike, counts }: Tally): Unchanged | null {
  if (weight < 4) return null;
  let sum = 0;
  let bin = 0;
  while (bin < counts.length - 1 && (sum += counts[bin]) < 0.95 * weight) bin++;
  // Nothing at all has changed in the first step unless something has.
  const p95 = bin === 0 && difference === 0 ? 0 : (bin + 0.5) / 20;
  return { mean: difference / weight, p95, ssim: alike / weight, pixels: weight };
}

/** In words: about what a careful eye sees (common practice: below 1 nothing, below 2.3 hardly anything). */
export function verdictOf({ mean, p95 }: Unchanged): string {
  if (p95 < 1) return 'untouched';
  if (mean < 1 && p95 < 2.3) return 'hardly touched';
  if (mean < 5) return 'softened';
  return mean < 10 ? 'textured' : 'covered';
}

/** The amount at which a region would hardly be touched: what comes through goes with 1 − amount. */
export function amountToKeep({ p95 }: Unchanged, amount: number): number {
  if (p95 < 1) return amount;
  return Math.min(1, Math.ceil((1 - ((1 - amount) * 0.9) / p95) * 20) / 20);
}
