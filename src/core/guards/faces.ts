import { faceWidth, type Face } from './finding';
import { headAxes, outlineOf } from './outlines';
import type { Planes } from '../image/planes';

/** Planes of the features of all faces. */
export interface FacePlanes {
  eyes: number;
  brows: number;
  lips: number;
  nostrils: number;
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
export function drawFaces(planes: Planes, faces: readonly Face[], long: number, luma?: number): FacePlanes {
  const made: FacePlanes = {
    eyes: planes.make(),
    brows: planes.make(),
    lips: planes.make(),
    nostrils: planes.make(),
    oval: planes.make(),
  };
  for (const face of faces) {
    const width = faceWidth(face, long);
    const ring = (name: Parameters<typeof outlineOf>[1]) => outlineOf(face, name, long);
    // Works only around the face, however large the photo is.
    const part = planes.around(ring('oval'), 0.12 * width + 2);
    const add = (into: number, outlines: (readonly [number, number])[][], wider: number, soft: number) =>
      planes.briefly(() => {
        const one = part.make();
        for (const outline of outlines) part.fill(one, outline);
        part.widen(one, wider * width);
        part.blur(one, soft * width);
        part.mostOf(planes, into, one);
      });
    add(made.eyes, [ring('leftEye'), ring('rightEye')], 0.045, 0.02);
    const brows = [ring('leftBrow'), ring('rightBrow')].map((brow) => onHair(part, planes, brow, face, width, luma));
    add(made.brows, brows, 0.02, 0.012);
    add(made.lips, [ring('lips')], 0.028, 0.016);
    add(made.nostrils, [ring('leftNostril'), ring('rightNostril')], 0.01, 0.008);
    add(made.oval, [ring('oval')], 0, 0);
  }
  return made;
}

/** Steps by which a brow is moved down, in face widths: the mesh's brows sit a little above the hair of real ones. */
const STEPS = [0, 0.007, 0.014, 0.021, 0.028, 0.035];

/** A brow's outline where it covers the darkest part of the photo; half the way down where that is not known. */
function onHair(part: Planes, whole: Planes, brow: [number, number][], face: Face, width: number, luma: number | undefined): [number, number][] {
  const { down } = headAxes(face);
  const moved = (by: number) => brow.map(([x, y]): [number, number] => [x + down[0] * by * width, y + down[1] * by * width]);
  if (luma === undefined) return moved(0.018);
  return part.briefly(() => {
    const light = part.cut(whole, luma);
    const under = STEPS.map((by) =>
      part.briefly(() => {
        const at = part.make();
        part.fill(at, moved(by));
        return part.sum(part.product(at, light)) / Math.max(1e-6, part.sum(at));
      }),
    );
    return moved(STEPS[under.indexOf(Math.min(...under))]);
  });
}
