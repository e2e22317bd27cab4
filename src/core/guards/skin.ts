import { faceWidth, meshPoint, type Face } from './finding';
import { hairBand, outlineOf } from './outlines';
import type { FacePlanes, Tones } from './faces';
import type { Planes } from '../image/planes';

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

export interface SkinPlanes {
  skin: number;
  body: number;
  hair: number;
}

/**
 * Face skin, other skin and hair. Skin is recognised by a Gaussian of its colours, learned from each face's oval without its features; hair by
 * its geodesic distance over smoothed colours from a band above the oval. Hair is subtracted from skin.
 */
export function drawSkin(planes: Planes, faces: readonly Face[], long: number, tones: Tones, made: FacePlanes, person: number): SkinPlanes {
  const out: SkinPlanes = { skin: planes.make(), body: planes.make(), hair: planes.make() };
  for (const face of faces) planes.briefly(() => drawOne(planes, face, long, tones, made, person, out));
  planes.without(out.body, out.hair);
  planes.without(out.skin, out.hair);
  for (const feature of [made.eyes, made.brows, made.lips, made.nostrils]) planes.without(out.skin, feature);
  planes.without(out.body, out.skin);
  planes.without(out.body, made.oval);
  return out;
}

function drawOne(planes: Planes, face: Face, long: number, { luma, blue, red }: Tones, made: FacePlanes, person: number, out: SkinPlanes): void {
  const width = faceWidth(face, long);
  const oval = planes.make();
  planes.fill(oval, outlineOf(face, 'oval', long));
  // Learned above the mouth only: below it there may be a beard.
  const inner = planes.make();
  planes.fill(inner, upperFace(face, long));
  planes.widen(inner, -0.05 * width);
  for (const feature of [made.eyes, made.brows, made.lips, made.nostrils]) planes.without(inner, feature);
  // Colours relative to the light that falls on them, so that a shaded cheek is skin too.
  const [calmBlue, calmRed] = [blue, red].map((plane) => relative(planes, plane, luma, 0.012 * width));
  const first = coloursOf(planes, inner, calmBlue, calmRed, 4e-4);
  if (!first) return;
  // Learn again from what is similar to it, so that a fringe or glasses do not count.
  planes.times(inner, alike(planes, first, calmBlue, calmRed, 1));
  const colours = coloursOf(planes, inner, calmBlue, calmRed, 4e-4) ?? first;
  const like = alike(planes, colours, calmBlue, calmRed, 5);
  // Where it is nearly black its colour says nothing.
  const lit = planes.copy(luma);
  planes.ramp(lit, 0.025, 0.07);
  planes.times(like, lit);
  const near = distanceFade(planes, face, long, width);

  const hair = drawHair(planes, face, long, width, { luma, blue: calmBlue, red: calmRed }, like, oval, person);
  planes.times(hair, near);
  planes.most(out.hair, hair);

  // Up to where hair begins: the mesh ends below it.
  const skin = planes.copy(oval);
  planes.fill(skin, [...hairBand(face, long, 0.16), meshPoint(face, 168, long)]);
  planes.widen(skin, 0.03 * width);
  planes.blur(skin, 0.015 * width);
  planes.times(skin, like);
  // Deep shadows on a face are skin as well.
  planes.widen(skin, 0.05 * width);
  planes.widen(skin, -0.05 * width);
  planes.times(skin, person);
  planes.most(out.skin, skin);

  const body = planes.product(like, person);
  planes.most(out.body, body);
}

/** A colour difference divided by luma, smoothed over `sigma` pixels. */
function relative(planes: Planes, plane: number, luma: number, sigma: number): number {
  const out = planes.copy(plane);
  const under = planes.copy(luma);
  planes.blur(out, sigma);
  planes.blur(under, sigma);
  planes.machine.kernels.mixIn(under, under, planes.count, 1, 0, 0.06);
  planes.machine.kernels.power(under, planes.count, -1);
  planes.times(out, under);
  return out;
}

/** 1 about a head, falling to 0 where no hair of it can be: two face widths to the sides, and somewhat below the chin. */
function distanceFade(planes: Planes, face: Face, long: number, width: number): number {
  const [x, y] = meshPoint(face, 168, long);
  const out = planes.make();
  planes.fill(
    out,
    Array.from({ length: 32 }, (_, k): [number, number] => [
      x + Math.cos((k * Math.PI) / 16) * 1.35 * width,
      y + Math.sin((k * Math.PI) / 16) * 1.5 * width,
    ]),
  );
  planes.blur(out, 0.15 * width);
  return out;
}

/** The oval above the tip of the nose. */
function upperFace(face: Face, long: number): [number, number][] {
  const [tip, left, right] = [2, 234, 454].map((i) => meshPoint(face, i, long));
  const side = ([x, y]: readonly [number, number]) => (right[0] - left[0]) * (y - tip[1]) - (right[1] - left[1]) * (x - tip[0]);
  return outlineOf(face, 'oval', long).filter((p) => side(p) < 0);
}

function drawHair(planes: Planes, face: Face, long: number, width: number, tones: Tones, skin: number, oval: number, person: number): number {
  const seeds = planes.make();
  planes.fill(seeds, [...hairBand(face, long, 0.34), ...hairBand(face, long, 0.16).reverse()]);
  planes.times(seeds, person);
  planes.without(seeds, skin);
  planes.without(seeds, oval);
  const guide = [tones.luma, tones.blue, tones.red].map((plane) => {
    const calm = planes.copy(plane);
    planes.blur(calm, 0.03 * width);
    return calm;
  }) as [number, number, number];
  // Crossing skin or what is not a person costs much.
  const barrier = planes.copy(skin);
  planes.without(barrier, seeds);
  planes.machine.kernels.mixIn(guide[0], barrier, planes.count, 1, 0.5, 0);
  planes.machine.kernels.mixIn(guide[0], person, planes.count, 1, -1, 0);
  const hair = planes.geodesic(seeds, guide, 2.2 * width);
  planes.ramp(hair, 1.15 * width, 0.75 * width);
  planes.times(hair, person);
  planes.without(hair, skin);
  // Highlights in hair that look like skin are filled.
  planes.widen(hair, 0.06 * width);
  planes.widen(hair, -0.06 * width);
  return hair;
}
