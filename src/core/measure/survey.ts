import type { Machine } from '../image/machine';
import { takePalette, type PaletteOrder } from './paletteSurvey';

/** How the whole of a picture is measured for a treatment. */
export interface SurveyOrder {
  /** Radius of the surroundings of a point, in u. */
  radius: number;
  /** Variance of luma above which something counts as an edge that stays. */
  eps: number;
  /** Colours that stand for it are wanted instead. */
  palette?: PaletteOrder;
}

/**
 * A small picture's luma as a linear model of itself over surroundings (He, Sun & Tang 2013): base = slope·luma + offset, two planes of f32 in
 * kernel memory that are read bilinearly at any scale, as in He & Sun, Fast guided filter (2015). And levels of luma that a share of it lies below.
 */
export interface Survey {
  slope: number;
  offset: number;
  width: number;
  height: number;
  /** Luma below which 0.5 %, half and 99.5 % of the picture lie. */
  low: number;
  middle: number;
  high: number;
  /** Encoded colours 0..1, three values each, dark to light, where they were asked for. */
  palette?: number[];
}

/** Long side of the small drawing. A treatment's surroundings are some pixels wide on it, whatever the size of the picture. */
export const SURVEY_SIDE = 320;

export const surveyBytes = (width: number, height: number): number => 2 * Math.ceil((width * height + 8) / 8) * 32;
/** Working memory: five planes, a line, and the levels. */
export const surveyScratch = (width: number, height: number): number => 6 * Math.ceil((width * height + 8) / 8) * 32 + 65536;

/** Measures RGBA8 pixels; the planes are put at `target`. `unit`: pixels to one u. */
export function takeSurvey(
  machine: Machine,
  pixels: number,
  width: number,
  height: number,
  unit: number,
  { radius, eps, palette }: SurveyOrder,
  target: number,
  scratch: number,
): Survey {
  if (palette) {
    const colours = takePalette(machine.bytes.subarray(pixels, pixels + width * height * 4), width, height, palette);
    return { slope: 0, offset: 0, width, height, low: 0, middle: 0.5, high: 1, palette: colours };
  }
  const { kernels } = machine;
  const count = Math.ceil((width * height) / 8) * 8;
  const plane = Math.ceil((width * height + 8) / 8) * 32;
  const [luma, squared, mean, meanSquared, middle, line] = Array.from({ length: 6 }, (_, i) => scratch + i * plane);
  const [slope, offset] = [target, target + plane];
  kernels.lumaOf(pixels, width * height, luma, line);
  const counts = machine.words.slice(line / 4, line / 4 + 256);
  const r = Math.max(1, radius * unit);
  const box = (from: number, to: number) => kernels.boxMean(from, to, width, height, r, middle, line);
  kernels.multiplied(luma, luma, squared, count);
  box(luma, mean);
  box(squared, meanSquared);
  kernels.guidedModel(mean, mean, meanSquared, meanSquared, squared, luma, count, eps);
  box(squared, slope);
  box(luma, offset);
  const below = (share: number) => {
    let sum = 0;
    for (let v = 0; v < 256; v++) {
      sum += counts[v];
      if (sum >= width * height * share) return v / 255;
    }
    return 1;
  };
  return { slope, offset, width, height, low: below(0.005), middle: below(0.5), high: below(0.995) };
}
