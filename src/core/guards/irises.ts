import type { Planes } from '../image/planes';
import type { Tones } from './faces';
import { faceWidth, irisOf, meshPoint, type Face, type Iris } from './finding';
import { outlineOf } from './outlines';

/** How much lighter than the iris a catchlight is, in luma: from there it begins, and from there it is whole. */
const LIGHT = { from: 0.22, to: 0.4 };

/** Planes of the irises and of the catchlights in them. */
export interface IrisPlanes {
  irises: number;
  catchlights: number;
}

const circle = ({ x, y, radius }: Iris, by: number): [number, number][] =>
  Array.from({ length: 32 }, (_, k): [number, number] => [
    x + Math.cos((k * Math.PI) / 16) * radius * by,
    y + Math.sin((k * Math.PI) / 16) * radius * by,
  ]);

/** Irises as far as the lids leave them open, and the light that is reflected in them; null for a face whose irises were not found. */
export function drawIrises(planes: Planes, face: Face, long: number, { luma }: Tones): IrisPlanes | null {
  const found = irisOf(face, long);
  if (!found) return null;
  const width = faceWidth(face, long);
  const out = { irises: planes.make(), catchlights: planes.make() };
  (['rightEye', 'leftEye'] as const).forEach((ring, i) =>
    planes.briefly(() => {
      const open = planes.make();
      planes.fill(open, outlineOf(face, ring, long));
      const iris = planes.make();
      planes.fill(iris, circle(found[i], 1.04));
      planes.times(iris, open);
      const area = planes.sum(iris);
      // Behind a closed lid there is none.
      if (area < 0.25 * Math.PI * found[i].radius ** 2) return;
      const dark = planes.briefly(() => planes.sum(planes.product(luma, iris)) / area);
      const light = planes.copy(luma);
      planes.ramp(light, dark + LIGHT.from, dark + LIGHT.to);
      const near = planes.make();
      // Away from the rim, where the white of the eye begins.
      planes.fill(near, circle(found[i], 0.85));
      planes.times(light, near);
      planes.times(light, open);
      planes.widen(light, 0.006 * width);
      planes.most(out.catchlights, light);
      planes.blur(iris, 0.006 * width);
      planes.most(out.irises, iris);
    }),
  );
  return out;
}

/** Corners of a box about both eyes. */
export const eyesExtent = (face: Face, long: number): [number, number][] => {
  const by = 0.06 * faceWidth(face, long);
  return [33, 133, 263, 362].flatMap((i) => {
    const [x, y] = meshPoint(face, i, long);
    return [
      [x - by, y - by],
      [x + by, y + by],
    ] as [number, number][];
  });
};
