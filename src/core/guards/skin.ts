import { density, learn, measureFeatures, relative, type Features, type Gaussian } from './appearance';
import { faceWidth, meshPoint, type Face } from './finding';
import { earOutlines, hairBand, outlineOf, sideBands } from './outlines';
import { drawFaces, type FacePlanes, type Tones } from './faces';
import type { Planes } from '../image/planes';

/** Planes of skin and hair. */
export interface SkinPlanes {
  skin: number;
  body: number;
  hair: number;
}

/** How far a band's mean has to lie from the skin's in each feature to be hair. */
const FAR = [0.12, 0.12, 0.8, 0.9];
/** How many squared deviations from the mean still are the same thing. */
const ALIKE = 9;

/** Planes about one head: its skin, its hair, its bare ears, and what by its looks is no bare skin at all, on the face or elsewhere. */
export interface HeadPlanes {
  skin: number;
  hair: number;
  ears: number;
  other: number;
}

/** Where a pixel lies within `free` squared deviations of the mean of one of some Gaussians: 1, falling softly to 0. */
function within(planes: Planes, features: Features, gaussians: readonly Gaussian[], free: number): number {
  const out = planes.make();
  for (const gaussian of gaussians)
    planes.briefly(() => {
      const one = density(planes, features, [gaussian]);
      planes.machine.kernels.oddsOf(one, planes.make(gaussian.numbers[14] - free / 2), planes.count, 0, 2);
      planes.most(out, one);
    });
  return out;
}

/**
 * Skin and hair of a face in planes about its head. Both are learned as Gaussians of colour, light and contrast: skin from the upper half of the face, hair
 * from bands above and beside it where it is not like skin; each pixel belongs to the likelier of the two. Where a hand's breadth about the face
 * looks like skin, the head is bald.
 */
export function drawHead(planes: Planes, face: Face, long: number, tones: Tones, person: number): HeadPlanes | null {
  const { kernels } = planes.machine;
  const width = faceWidth(face, long);
  const out = { skin: planes.make(), hair: planes.make(), ears: planes.make(), other: planes.make() };
  return planes.briefly(() => {
    const features = measureFeatures(planes, tones, width);
    const made = drawFaces(planes, [face], long);
    const oval = planes.make();
    planes.fill(oval, outlineOf(face, 'oval', long));
    const inner = bareFace(planes, face, long, made);
    // First from the middle of the face, over which no hair falls.
    const middle = planes.make();
    planes.fill(middle, shrunk(outlineOf(face, 'oval', long), 0.6));
    planes.times(middle, inner);
    const first = learn(planes, features, middle, 'skin') ?? learn(planes, features, inner, 'skin');
    if (!first) return null;
    // Learned again from what is similar to it, so that a fringe or glasses do not count.
    planes.times(inner, within(planes, features, [first], ALIKE));
    const skinLooks = [learn(planes, features, inner, 'skin') ?? first];
    // Each half of its own: light from the side makes two skins of one.
    for (const half of halves(face, long)) {
      const side = planes.make();
      planes.fill(side, half);
      planes.times(side, inner);
      const looks = learn(planes, features, side, 'skin');
      if (looks) skinLooks.push(looks);
    }
    const unlike = within(planes, features, skinLooks, ALIKE);
    planes.invert(unlike);
    const sure = planes.copy(person);
    planes.ramp(sure, 0.5, 0.9);
    const ears = planes.make();
    for (const ear of earOutlines(face, long)) planes.fill(ears, ear);
    const bands = [[...hairBand(face, long, 0.36), ...hairBand(face, long, 0.1).reverse()], ...sideBands(face, long)].map((outline) => {
      const band = planes.make();
      planes.fill(band, outline);
      // An ear in the shade is no hair.
      planes.without(band, ears);
      planes.without(band, oval);
      planes.times(band, sure);
      return band;
    });
    const seeds = planes.make();
    bands.forEach((band) => planes.most(seeds, band));
    const learnHair = (weight: number): Gaussian[] =>
      bands.flatMap((band) => {
        const firm = planes.product(band, weight);
        // Under a twentieth of the band is noise at its edges.
        if (planes.sum(firm) < 0.05 * planes.sum(band)) return learnUnlike(planes, features, band, skinLooks[0]);
        return learn(planes, features, firm, 'hair') ?? [];
      });
    const prior = drawPrior(planes, face, long, width, oval);
    let odds = unlike;
    let hairLooks: Gaussian[] = [];
    let clothes: Gaussian[] = [];
    for (let round = 0; round < 3; round++) {
      hairLooks = learnHair(odds);
      if (hairLooks.length === 0) break;
      if (round > 0) clothes = learnClothes(planes, features, face, long, width, unlike, within(planes, features, hairLooks, 20), sure);
      odds = density(planes, features, hairLooks);
      const others = density(planes, features, [...skinLooks, ...clothes]);
      kernels.mixIn(odds, others, planes.count, 1, -1, 0);
      // However far apart they are, the place still says something.
      kernels.clampTo(odds, planes.count, -7, 7);
      kernels.mixIn(odds, prior, planes.count, 1, 1, 0);
      planes.briefly(() => kernels.oddsOf(odds, planes.make(), planes.count, 0, 1));
    }
    for (const ear of earOutlines(face, long))
      planes.briefly(() => addBareEar(planes, ear, width, features, skinLooks[0], oval, sure, odds, out.ears));
    planes.without(odds, out.ears);
    const hair = planes.make();
    if (hairLooks.length > 0) {
      planes.put(odds, hair);
      // Clothes are no skin either: below the chin only what looks like the hair about the face counts.
      const like = within(planes, features, hairLooks, 18);
      const high = planes.make();
      planes.fill(high, below(face, long, 0));
      planes.invert(high);
      planes.most(like, high);
      planes.times(hair, like);
      planes.blur(hair, 0.012 * width);
      planes.times(hair, sure);
      planes.times(hair, reached(planes, hair, seeds, width));
      // Highlights within it are filled.
      planes.widen(hair, 0.05 * width);
      planes.widen(hair, -0.05 * width);
      planes.ramp(hair, 0.15, 0.65);
    }
    planes.put(hair, out.hair);

    // Up to where hair begins: the mesh ends below it.
    const skin = planes.copy(oval);
    planes.fill(skin, [...hairBand(face, long, 0.16), meshPoint(face, 168, long)]);
    planes.widen(skin, 0.03 * width);
    planes.blur(skin, 0.015 * width);
    const like = within(planes, features, skinLooks, 16);
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
    planes.put(skin, out.skin);
    // An arm may be lighter or darker than the face, but it does not look more like hair or a garment.
    const bare = within(planes, features, skinLooks, 30);
    planes.invert(bare);
    if (hairLooks.length > 0) planes.most(bare, odds);
    planes.blur(bare, 0.01 * width);
    planes.put(bare, out.other);
    return out;
  });
}

/** A bare ear against the skin of the face: no paler and bluer than this, and no darker, in the units of the features. */
const EAR = { red: -0.08, pale: -0.05, blue: -0.25, light: -0.8 };
/** Smallest part of an ear that is worth having, in squared face widths; and how much hair may fall below one that is bare. */
const EAR_PART = 0.03;
const HAIR_BELOW = 0.6;

/** Share of an ear that has to look like skin for it to be one without further question. */
const BARE = 0.6;

/** Adds an ear where one may be, unless hair lies over it: that is no skin, paler or darker than it, or falls on below the ear. */
function addBareEar(
  planes: Planes,
  outline: [number, number][],
  width: number,
  features: Features,
  skin: Gaussian,
  oval: number,
  person: number,
  hair: number,
  out: number,
): void {
  const ear = planes.make();
  planes.fill(ear, outline);
  planes.without(ear, oval);
  planes.times(ear, person);
  const area = planes.sum(ear);
  if (area < EAR_PART * width * width) return;
  const [blue, red, light] = features.map((f, i) => planes.briefly(() => planes.sum(planes.product(f, ear)) / area) - skin.mean[i]);
  const bare = within(planes, features, [skin], 16);
  planes.without(bare, hair);
  if (red < EAR.pale || planes.sum(planes.product(bare, ear)) < BARE * area) {
    if (red < EAR.red || blue < EAR.blue || light < EAR.light) return;
    const below = planes.make();
    planes.fill(
      below,
      outline.map(([x, y]): [number, number] => [x, y + 0.45 * width]),
    );
    planes.without(below, oval);
    const place = planes.sum(below);
    planes.times(below, person);
    planes.times(below, hair);
    if (planes.sum(below) > HAIR_BELOW * place) return;
  }
  planes.blur(ear, 0.02 * width);
  planes.most(out, ear);
}

/** What the place alone says of hair against skin, as a logarithm of odds: within the face skin, above and beside it hair, at the throat skin. */
function drawPrior(planes: Planes, face: Face, long: number, width: number, oval: number): number {
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

/** An outline drawn in towards its middle. */
function shrunk(outline: readonly (readonly [number, number])[], by: number): [number, number][] {
  const [x, y] = [0, 1].map((c) => outline.reduce((sum, p) => sum + p[c], 0) / outline.length);
  return outline.map((p): [number, number] => [x + (p[0] - x) * by, y + (p[1] - y) * by]);
}

/** Below the jaw, between its corners, three quarters of a face's width down. */
function throat(face: Face, long: number, width: number): [number, number][] {
  const jaw = [132, 172, 150, 152, 379, 397, 361].map((i) => meshPoint(face, i, long));
  const [top, chin] = [meshPoint(face, 10, long), meshPoint(face, 152, long)];
  const away = Math.hypot(chin[0] - top[0], chin[1] - top[1]) || 1;
  const down = [((chin[0] - top[0]) / away) * 0.6 * width, ((chin[1] - top[1]) / away) * 0.6 * width];
  return [...jaw, ...jaw.map(([x, y]): [number, number] => [x + down[0], y + down[1]]).reverse()];
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
  face: Face,
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

/** All that lies more than `far` face widths below the chin, between two columns of the picture. */
function below(face: Face, long: number, far: number, left = -1e5, right = 1e5): [number, number][] {
  const top = meshPoint(face, 152, long)[1] + far * faceWidth(face, long);
  return [
    [left, top],
    [right, top],
    [right, 1e5],
    [left, 1e5],
  ];
}

/** Either half of a face, to the sides of the bridge of its nose. */
function halves(face: Face, long: number): [number, number][][] {
  const oval = outlineOf(face, 'oval', long);
  const middle = [10, 168, 4, 152].map((i) => meshPoint(face, i, long));
  // The outline begins at the top and goes down on one side, and up again on the other.
  return [
    [...oval.slice(0, 19), ...[...middle].reverse()],
    [...oval.slice(18), ...middle],
  ];
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

/** Where a face is sure to be bare skin: above the mouth, because below it there may be a beard, and without its features. */
function bareFace(planes: Planes, face: Face, long: number, made: FacePlanes): number {
  const inner = planes.make();
  planes.fill(inner, upperFace(face, long));
  planes.widen(inner, -0.05 * faceWidth(face, long));
  for (const feature of [made.eyes, made.brows, made.lips, made.nostrils]) planes.without(inner, feature);
  return inner;
}

/** The oval above the tip of the nose. */
function upperFace(face: Face, long: number): [number, number][] {
  const [tip, left, right] = [2, 234, 454].map((i) => meshPoint(face, i, long));
  const side = ([x, y]: readonly [number, number]) => (right[0] - left[0]) * (y - tip[1]) - (right[1] - left[1]) * (x - tip[0]);
  return outlineOf(face, 'oval', long).filter((p) => side(p) < 0);
}

/** Bare skin anywhere on a person, from the looks of a face's skin: by colour alone, since an arm may be lighter or darker than a face. */
export function drawBody(planes: Planes, face: Face, long: number, tones: Tones, person: number): number {
  const { kernels } = planes.machine;
  const width = faceWidth(face, long);
  const out = planes.make();
  planes.briefly(() => {
    const inner = bareFace(planes, face, long, drawFaces(planes, [face], long));
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
