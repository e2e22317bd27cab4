import { faceWidth, meshPoint, type Face } from './finding';
import { earOutlines, headAxes, outlineOf } from './outlines';
import type { Planes } from '../image/planes';

/** Planes of the features of all faces. */
export interface FacePlanes {
  eyes: number;
  brows: number;
  lips: number;
  teeth: number;
  nostrils: number;
  ears: number;
  /** The ovals, without feather. */
  oval: number;
}

/** Luma and the two colour differences of the photo. */
export interface Tones {
  luma: number;
  blue: number;
  red: number;
}

/** Draws the features of each face, a little wider than the mesh so that lids, lashes and the rims of the lips are included, with soft edges. Widths are fractions of the face's width. */
export function drawFaces(planes: Planes, faces: readonly Face[], long: number, tones: Tones): FacePlanes {
  const made: FacePlanes = {
    eyes: planes.make(),
    brows: planes.make(),
    lips: planes.make(),
    teeth: planes.make(),
    nostrils: planes.make(),
    ears: planes.make(),
    oval: planes.make(),
  };
  for (const face of faces) {
    const width = faceWidth(face, long);
    const ring = (name: Parameters<typeof outlineOf>[1]) => outlineOf(face, name, long);
    const ears = earOutlines(face, long);
    // Works only around the face, however large the photo is.
    const part = planes.around([...ring('oval'), ...ears.flat()], 0.12 * width + 2);
    const add = (into: number, outlines: (readonly [number, number])[][], wider: number, soft: number) =>
      planes.briefly(() => {
        const one = part.make();
        for (const outline of outlines) part.fill(one, outline);
        part.widen(one, wider * width);
        part.blur(one, soft * width);
        part.mostOf(planes, into, one);
      });
    add(made.eyes, [ring('leftEye'), ring('rightEye')], 0.034, 0.008);
    // The mesh's brows sit a little above the hair of real ones.
    const { down } = headAxes(face);
    const lower = (outline: [number, number][]) =>
      outline.map(([x, y]): [number, number] => [x + down[0] * 0.018 * width, y + down[1] * 0.018 * width]);
    add(made.brows, [lower(ring('leftBrow')), lower(ring('rightBrow'))], 0.02, 0.012);
    add(made.lips, [ring('lips')], 0.02, 0.01);
    add(made.nostrils, [ring('leftNostril'), ring('rightNostril')], 0.01, 0.008);
    add(made.ears, ears, 0, 0.03);
    add(made.oval, [ring('oval')], 0, 0);
    planes.briefly(() => {
      const teeth = drawTeeth(part, face, long, width, { luma: part.cut(planes, tones.luma), red: part.cut(planes, tones.red) });
      if (teeth) part.mostOf(planes, made.teeth, teeth);
    });
  }
  // An ear begins where the face ends.
  planes.without(made.ears, made.oval);
  return made;
}

/** What is bright and pale inside an open mouth. */
function drawTeeth(planes: Planes, face: Face, long: number, width: number, { luma, red }: Pick<Tones, 'luma' | 'red'>): number | null {
  const [upper, lower] = [meshPoint(face, 13, long), meshPoint(face, 14, long)];
  if (Math.hypot(upper[0] - lower[0], upper[1] - lower[1]) < 0.02 * width) return null;
  const mouth = planes.make();
  planes.fill(mouth, outlineOf(face, 'mouth', long));
  const area = planes.sum(mouth);
  if (area < 12) return null;
  const mean = (of: number) => planes.briefly(() => planes.sum(planes.product(of, mouth)) / area);
  // Relative to the mean of the mouth: teeth are its lighter and less red part.
  const [meanLuma, meanRed] = [mean(luma), mean(red)];
  const bright = planes.copy(luma);
  planes.ramp(bright, meanLuma * 0.72, meanLuma * 0.98);
  const pale = planes.copy(red);
  planes.ramp(pale, Math.max(meanRed * 1.9, 0.1), Math.max(meanRed, 0.04));
  const teeth = planes.product(bright, pale);
  planes.widen(mouth, 0.004 * width);
  planes.times(teeth, mouth);
  planes.blur(teeth, 0.005 * width);
  return teeth;
}
