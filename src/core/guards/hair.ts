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
  const { planes, face, long, width, features, person, skin } = head;
  const { kernels } = planes.machine;
  const unlike = within(planes, features, skin, ALIKE);
  planes.invert(unlike);
  const bands = bandsOf(head);
  const seeds = planes.make();
  bands.forEach((band) => planes.most(seeds, band));
  const learnHair = (weight: number): Gaussian[] =>
    bands.flatMap((band) => {
      const firm = planes.product(band, weight);
      // Under a twentieth of the band is noise at its edges.
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
    if (round > 0) clothes = learnClothes(planes, features, face, long, width, unlike, within(planes, features, looks, 20), person);
    odds = density(planes, features, looks);
    const others = density(planes, features, [...skin, ...clothes]);
    kernels.mixIn(odds, others, planes.count, 1, -1, 0);
    // However far apart they are, the place still says something.
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
    // Clothes are no skin either: below the chin only what looks like the hair about the face counts.
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
    // An ear in the shade is no hair.
    planes.without(band, ears);
    planes.without(band, oval);
    planes.times(band, person);
    return band;
  });
}

/** What the place alone says of hair against skin, as a logarithm of odds: within the face skin, above and beside it hair, at the throat skin. */
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
  // Hair seldom falls over what lies below the brows, but for the sides.
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
  // And the further below the chin, the more likely it is a garment.
  for (const far of [0.2, 0.5, 0.8]) add(below(face, long, far), -0.7, 0.1);
  kernels.mixIn(prior, prior, planes.count, 1, 0, 1);
  return prior;
}

/** Hair that has the colours of the skin beside it, as light hair in coloured light: by its contrast or its light, when all of a band differs from the skin. */
function learnUnlike(planes: Planes, features: Features, band: number, skin: Gaussian): Gaussian[] {
  const looks = learn(planes, features, band, 'hair');
  if (!looks) return [];
  return Math.hypot(...looks.mean.map((m, i) => (m - skin.mean[i]) / FAR[i])) > 1 ? [looks] : [];
}

/** The three parts of what lies below a chin: to the left, in the middle and to the right, as far as the planes reach. */
function learnClothes(
  planes: Planes,
  features: Features,
  face: Head['face'],
  long: number,
  width: number,
  unlikeSkin: number,
  likeHair: number,
  person: number,
): Gaussian[] {
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

/** Where hair is connected to that about the face, 0..1: what only looks like it, such as a dark coat, is not. */
function reached(planes: Planes, hair: number, seeds: number, width: number): number {
  const { kernels } = planes.machine;
  const firm = planes.copy(hair);
  planes.ramp(firm, 0.3, 0.7);
  const from = planes.product(firm, seeds);
  planes.ramp(from, 0.4, 0.6);
  // Crossing what is no hair costs much.
  const out = planes.geodesic(from, [firm, firm, firm], 3 * width);
  planes.ramp(out, 2.4 * width, 1.6 * width);
  kernels.clampTo(out, planes.count, 0, 1);
  return out;
}
