import type { Planes } from '../image/planes';
import type { Tones } from './faces';
import { faceWidth, meshPoint, type Face } from './finding';
import { outlineOf } from './outlines';

/** Values of a plane where a weight is at least a half, in order. */
function valuesIn(planes: Planes, plane: number, weight: number): number[] {
  const { floats } = planes.machine;
  const values: number[] = [];
  for (let i = 0; i < planes.width * planes.height; i++) if (floats[weight / 4 + i] >= 0.5) values.push(floats[plane / 4 + i]);
  return values.sort((a, b) => a - b);
}
const quantile = (sorted: readonly number[], share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;

/** Mean height of an open mouth, in face widths, below which no teeth show. */
const OPEN = 0.012;
/** The same in a photo without colours, and the redness of lips below which it has none. */
const WIDE_OPEN = 0.05;
const COLOURED = 0.06;

/**
 * Teeth, in planes about the mouth; null behind closed lips. Inside an open mouth they are what is less red than the lips and not dark.
 * Redness is (r − g) / (luma + 0.06), against the medians of the lips and of the skin about them; light is against the brightest of the mouth.
 */
export function drawTeeth(planes: Planes, face: Face, long: number, { luma, blue, red }: Tones): number | null {
  const { kernels } = planes.machine;
  const width = faceWidth(face, long);
  const corners = [meshPoint(face, 78, long), meshPoint(face, 308, long)];
  const across = Math.hypot(corners[0][0] - corners[1][0], corners[0][1] - corners[1][1]);
  const mouth = planes.make();
  planes.fill(mouth, outlineOf(face, 'mouth', long));
  const area = planes.sum(mouth);
  if (area < OPEN * width * across) return null;
  planes.widen(mouth, 0.014 * width);
  const lips = planes.make();
  planes.fill(lips, outlineOf(face, 'lips', long));
  planes.without(lips, mouth);

  // r − g from the two colour differences.
  const redness = planes.copy(red);
  kernels.mixIn(redness, blue, planes.count, 1.2973, 0.101, 0);
  const under = planes.copy(luma);
  kernels.mixIn(under, under, planes.count, 1, 0, 0.06);
  kernels.power(under, planes.count, -1);
  planes.times(redness, under);
  planes.blur(redness, 0.004 * width);

  const skin = planes.make();
  planes.fill(skin, outlineOf(face, 'oval', long));
  planes.briefly(() => {
    const beside = planes.make();
    planes.fill(beside, outlineOf(face, 'lips', long));
    planes.widen(beside, 0.04 * width);
    planes.without(skin, beside);
  });
  const lipsOwn = quantile(valuesIn(planes, redness, lips), 0.5);
  // Without colours a light on the lips looks the same as teeth, unless the mouth is wide open.
  if (lipsOwn < COLOURED && area < WIDE_OPEN * width * across) return null;
  const ofLips = Math.max(0.12, lipsOwn);
  // In warm light teeth are as red as lips in the light of day, but never redder than the skin beside them.
  const ofSkin = quantile(valuesIn(planes, redness, skin), 0.5);
  const most = Math.max(0.62 * ofLips, Math.min(ofSkin, 0.8 * ofLips));
  const brightest = quantile(valuesIn(planes, luma, mouth), 0.95);
  const teeth = planes.copy(redness);
  planes.ramp(teeth, most, 0.72 * most);
  const bright = planes.copy(luma);
  planes.ramp(bright, 0.3 * brightest, 0.48 * brightest);
  planes.times(teeth, bright);
  planes.times(teeth, mouth);
  // Gaps between teeth are closed, single specks of light left out.
  const close = (radius: number) => {
    planes.widen(teeth, radius * width);
    planes.widen(teeth, -radius * width);
  };
  close(0.014);
  planes.widen(teeth, -0.008 * width);
  planes.widen(teeth, 0.016 * width);
  // Whole where it is likely: half a tooth that is kept shows as a stain.
  planes.ramp(teeth, 0.08, 0.5);
  planes.times(teeth, mouth);
  planes.blur(teeth, 0.004 * width);
  return teeth;
}
