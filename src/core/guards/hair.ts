import { density, learn, within, type Features, type Gaussian } from './appearance';
import { below, shrunk, throat } from './facePlaces';
import { meshPoint } from './finding';
import type { Head } from './head';
import { earOutlines, hairBand, outlineOf, sideBands } from './outlines';
import { ALIKE } from './skin';
import type { Planes } from '../image/planes';

/** How far a band's mean has to lie from the skin's in each feature to be hair. */
const FAR = [0.12, 0.12, 0.8, 0.9];
/** Rounds in which hair is learned from what was taken for it before. */
const ROUNDS = 3;

/** How likely each pixel is hair rather than skin or a garment, what the hair looks like, and the bands about the face from which that was learned. */
export interface HairOdds {
  odds: number;
  looks: Gaussian[];
  seeds: number;
}

/** Learns hair from bands above and beside the face where they are not like skin, and weighs it against skin and clothes by looks and by place. */
export function hairOdds(head: Head): HairOdds {
  const { planes, features, skin } = head;
  const { kernels } = planes.machine;
  const unlike = within(planes, features, skin, ALIKE);
  planes.invert(unlike);
  const bands = bandsOf(head);
  const seeds = planes.make();
  bands.forEach((band) => planes.most(seeds, band));
  const learnHair = (weight: number): Gaussian[] =>
    bands.flatMap((band) => {
      const firm = planes.product(band, weight);
      // Less than a twentieth of the band is noise at its edges.
      if (planes.sum(firm) < 0.05 * planes.sum(band)) return learnUnlike(planes, features, band, skin[0]);
      return learn(planes, features, firm, 'hair') ?? [];
    });
  const prior = drawPrior(head);
  let odds = unlike;
  let looks: Gaussian[] = [];
  let clothes: Gaussian[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    looks = learnHair(odds);
    if (looks.length === 0) break;
    if (round > 0) clothes = learnClothes(head, unlike, within(planes, features, looks, 20));
    odds = density(planes, features, looks);
    const others = density(planes, features, [...skin, ...clothes]);
    kernels.mixIn(odds, others, planes.count, 1, -1, 0);
    // Limited, so that the place always counts too.
    kernels.clampTo(odds, planes.count, -7, 7);
    kernels.mixIn(odds, prior, planes.count, 1, 1, 0);
    planes.briefly(() => kernels.oddsOf(odds, planes.make(), planes.count, 0, 1));
  }
  return { odds, looks, seeds };
}

/** Hair as a region: what is likely hair, connected to that about the face, with its highlights filled. */
export function drawHair({ planes, face, long, width, features, person }: Head, { odds, looks, seeds }: HairOdds): number {
  const hair = planes.make();
  if (looks.length === 0) return hair;
  planes.briefly(() => {
    planes.put(odds, hair);
    // Clothes are not skin either. Below the chin, only what looks like the hair around the face counts as hair.
    const like = within(planes, features, looks, 18);
    const high = planes.make();
    planes.fill(high, below(face, long, 0));
    planes.invert(high);
    planes.most(like, high);
    planes.times(hair, like);
    planes.blur(hair, 0.012 * width);
    planes.times(hair, person);
    planes.times(hair, reached(planes, hair, seeds, width));
    planes.widen(hair, 0.05 * width);
    planes.widen(hair, -0.05 * width);
    planes.ramp(hair, 0.15, 0.65);
  });
  return hair;
}

/** Planes of bands above the face and beside it, where there is a person and no face. */
function bandsOf({ planes, face, long, oval, person }: Head): number[] {
  const ears = planes.make();
  for (const ear of earOutlines(face, long)) planes.fill(ears, ear);
  const above = [...hairBand(face, long, 0.36), ...hairBand(face, long, 0.1).reverse()];
  return [above, ...sideBands(face, long)].map((outline) => {
    const band = planes.make();
    planes.fill(band, outline);
    // A shaded ear would be learned as hair.
    planes.without(band, ears);
    planes.without(band, oval);
    planes.times(band, person);
    return band;
  });
}

/** How likely hair is by place alone, as a logarithm of odds: likely above and beside the face, unlikely within it and at the throat. */
function drawPrior({ planes, face, long, width, oval }: Head): number {
  const { kernels } = planes.machine;
  const prior = planes.make();
  const add = (outline: readonly (readonly [number, number])[], amount: number, soft: number) =>
    planes.briefly(() => {
      const at = planes.make();
      planes.fill(at, outline);
      planes.blur(at, soft * width);
      kernels.mixIn(prior, at, planes.count, 1, amount, 0);
    });
  planes.briefly(() => {
    const inside = planes.copy(oval);
    planes.blur(inside, 0.05 * width);
    kernels.mixIn(prior, inside, planes.count, 1, -3, 0);
  });
  // Hair seldom covers the face below the brows, except at its sides.
  add(
    shrunk(
      outlineOf(face, 'oval', long).filter((_, i) => i >= 8 && i <= 28),
      0.8,
    ),
    -6,
    0.06,
  );
  add(throat(face, long, width), -3, 0.08);
  for (const ear of earOutlines(face, long)) add(ear, -4, 0.03);
  // The further below the chin, the more likely it is clothing.
  for (const far of [0.2, 0.5, 0.8]) add(below(face, long, far), -0.7, 0.1);
  kernels.mixIn(prior, prior, planes.count, 1, 0, 1);
  return prior;
}

/** Hair in the colours of the skin, such as blond hair in coloured light: learned from a whole band if that differs from the skin in contrast or light. */
function learnUnlike(planes: Planes, features: Features, band: number, skin: Gaussian): Gaussian[] {
  const looks = learn(planes, features, band, 'hair');
  if (!looks) return [];
  return Math.hypot(...looks.mean.map((m, i) => (m - skin.mean[i]) / FAR[i])) > 1 ? [looks] : [];
}

/** What the clothes look like: learned below the chin in three parts, left, middle and right, from what looks like neither skin nor hair. */
function learnClothes({ planes, features, face, long, width, person }: Head, unlikeSkin: number, likeHair: number): Gaussian[] {
  const weight = planes.product(unlikeSkin, person);
  planes.without(weight, likeHair);
  const [x] = meshPoint(face, 152, long);
  return [-1.7, -0.6, 0.6].flatMap((from, i) => {
    const part = planes.make();
    planes.fill(part, below(face, long, 0.3, x + from * width, x + (from + [1.1, 1.2, 1.1][i]) * width));
    planes.times(part, weight);
    return planes.sum(part) > 0.03 * width * width ? (learn(planes, features, part, 'hair') ?? []) : [];
  });
}

/** Where hair is connected to the hair around the face, 0..1: a dark coat only looks like it. */
function reached(planes: Planes, hair: number, seeds: number, width: number): number {
  const firm = planes.copy(hair);
  planes.ramp(firm, 0.3, 0.7);
  const from = planes.product(firm, seeds);
  planes.ramp(from, 0.4, 0.6);
  // Going through anything but hair is expensive.
  const out = planes.geodesic(from, [firm, firm, firm], 3 * width);
  planes.ramp(out, 2.4 * width, 1.6 * width);
  return out;
}
