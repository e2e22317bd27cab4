import { learn, relative, within, type Features, type Gaussian } from './appearance';
import { drawFaces, type Tones } from './faces';
import { faceWidth, meshPoint, type Face } from './finding';
import { halves, shrunk, upperFace } from './facePlaces';
import { hairBand, outlineOf } from './outlines';
import type { Planes } from '../image/planes';

/** How many squared deviations from the mean still are the same thing. */
export const ALIKE = 9;

/** What the skin of a face looks like: all of it, then either half, because light from the side makes two skins of one. Null where hardly any shows. */
export function learnSkin(planes: Planes, face: Face, long: number, features: Features): Gaussian[] | null {
  return planes.briefly(() => {
    const inner = bareFace(planes, face, long);
    // First from the middle of the face, over which no hair falls.
    const middle = planes.make();
    planes.fill(middle, shrunk(outlineOf(face, 'oval', long), 0.6));
    planes.times(middle, inner);
    const first = learn(planes, features, middle, 'skin') ?? learn(planes, features, inner, 'skin');
    if (!first) return null;
    // Learned again from what is similar to it, so that a fringe or glasses do not count.
    planes.times(inner, within(planes, features, [first], ALIKE));
    const sides = halves(face, long).flatMap((half) => {
      const side = planes.make();
      planes.fill(side, half);
      planes.times(side, inner);
      return learn(planes, features, side, 'skin') ?? [];
    });
    return [learn(planes, features, inner, 'skin') ?? first, ...sides];
  });
}

/** The skin of a face up to where hair begins, without the hair over it. */
export function drawFaceSkin(
  planes: Planes,
  face: Face,
  long: number,
  { features, looks, oval, hair, person }: { features: Features; looks: readonly Gaussian[]; oval: number; hair: number; person: number },
): number {
  const width = faceWidth(face, long);
  const skin = planes.copy(oval);
  planes.briefly(() => {
    // The mesh ends below the hair line.
    planes.fill(skin, [...hairBand(face, long, 0.16), meshPoint(face, 168, long)]);
    planes.widen(skin, 0.03 * width);
    planes.blur(skin, 0.015 * width);
    const like = within(planes, features, looks, 16);
    // Well inside the face it is skin whatever light falls on it.
    const inside = planes.make();
    planes.fill(inside, shrunk(outlineOf(face, 'oval', long), 0.8));
    planes.blur(inside, 0.04 * width);
    planes.most(like, inside);
    planes.times(skin, like);
    // Deep shadows on a face are skin as well.
    planes.widen(skin, 0.06 * width);
    planes.widen(skin, -0.06 * width);
    planes.without(skin, hair);
    planes.times(skin, person);
  });
  return skin;
}

/** Where a face is sure to be bare skin: above the mouth, because below it there may be a beard, and without its features. */
function bareFace(planes: Planes, face: Face, long: number): number {
  const made = drawFaces(planes, [face], long);
  const inner = planes.make();
  planes.fill(inner, upperFace(face, long));
  planes.widen(inner, -0.05 * faceWidth(face, long));
  for (const feature of [made.eyes, made.brows, made.lips, made.nostrils]) planes.without(inner, feature);
  return inner;
}

/** Bare skin anywhere on a person, from the looks of a face's skin: by colour alone, since an arm may be lighter or darker than a face. */
export function drawBody(planes: Planes, face: Face, long: number, tones: Tones, person: number): number {
  const { kernels } = planes.machine;
  const width = faceWidth(face, long);
  const out = planes.make();
  planes.briefly(() => {
    const inner = bareFace(planes, face, long);
    const [blue, red] = [tones.blue, tones.red].map((plane) => relative(planes, plane, tones.luma, 0.012 * width));
    const colours = coloursOf(planes, inner, blue, red, 4e-4);
    if (!colours) return;
    const like = alike(planes, colours, blue, red, 5);
    // Where it is nearly black its colour says nothing.
    const lit = planes.copy(tones.luma);
    planes.ramp(lit, 0.025, 0.07);
    planes.times(like, lit);
    planes.times(like, person);
    planes.put(like, out);
    kernels.clampTo(out, planes.count, 0, 1);
  });
  return out;
}

/** A Gaussian of two colour differences. */
interface Colours {
  mean: [number, number];
  /** Inverse covariance: aa, ab, bb. */
  inverse: [number, number, number];
}

/** Mean and covariance of the colours under a weight; null where the weight is close to zero. `least` is the smallest variance that is assumed. */
export function coloursOf(planes: Planes, weight: number, a: number, b: number, least: number): Colours | null {
  return planes.briefly(() => {
    const at = planes.scratch.take(64);
    planes.machine.kernels.weightedMoments(weight, a, b, planes.width * planes.height, at);
    const [w, sa, sb, saa, sab, sbb] = new Float64Array(planes.machine.memory.buffer, at, 6);
    if (w < 20) return null;
    const [ma, mb] = [sa / w, sb / w];
    const vaa = saa / w - ma * ma + least;
    const vbb = sbb / w - mb * mb + least;
    const vab = sab / w - ma * mb;
    const det = vaa * vbb - vab * vab;
    return { mean: [ma, mb], inverse: [vbb / det, -vab / det, vaa / det] };
  });
}

/** How similar each pixel's colours are to a Gaussian, 0..1, as a new plane. Up to the squared distance `free`, in deviations, the similarity is 1. */
export function alike(planes: Planes, { mean, inverse }: Colours, a: number, b: number, free: number): number {
  const out = planes.make();
  const [ma, mb] = mean;
  const [iaa, iab, ibb] = inverse;
  planes.machine.kernels.likeness({ a, b, dst: out, count: planes.count, ma, mb, iaa, iab, ibb, free });
  return out;
}
