import type { Tones } from './faces';
import { refine } from './guided';
import type { Planes } from '../image/planes';

/**
 * What stands out, as a guess at the subject where nobody was found: the distance of each pixel's calmed colour from the mean colour (Achanta et al.,
 * Frequency-tuned Salient Region Detection, 2009), weighted towards the middle of the photo and snapped to its edges.
 */
export function drawSalient(planes: Planes, guide: readonly [number, number, number], { luma, blue, red }: Tones): number {
  const out = planes.make();
  planes.briefly(() => {
    const { kernels } = planes.machine;
    const { width, height, count } = planes;
    const long = Math.max(width, height);
    const pixels = width * height;
    const sum = planes.make();
    for (const [plane, weight] of [
      [luma, 1],
      [blue, 3],
      [red, 3],
    ] as const) {
      planes.briefly(() => {
        const calm = planes.copy(plane);
        planes.blur(calm, long / 200);
        kernels.mixIn(calm, calm, count, 1, 0, -planes.sum(plane) / pixels);
        kernels.mixIn(sum, planes.product(calm, calm), count, 1, weight * weight, 0);
      });
    }
    kernels.power(sum, count, 0.5);
    planes.blur(sum, long / 60);
    const middle = planes.make();
    kernels.maskEllipse({
      mask: middle,
      tw: width,
      th: height,
      cx: width / 2,
      cy: height / 2,
      rx: width * 0.75,
      ry: height * 0.75,
      cos: 1,
      sin: 0,
      feather: 1,
      density: 1,
      op: 0,
      shape: 0,
    });
    kernels.mixIn(middle, middle, count, 0.7, 0, 0.3);
    planes.times(sum, middle);
    const mean = planes.sum(sum) / pixels;
    planes.ramp(sum, mean * 1.2, mean * 2.2);
    refine(planes, guide, sum, Math.max(2, width / 60));
    planes.put(sum, out);
  });
  return out;
}
