import type { Planes } from '../image/planes';

export type Guide = readonly [number, number, number];

/** Between these the map of a subject is not sure; about that the band is widened by this share of the long side, or less for a small subject. */
const SURE = [0.05, 0.95] as const;
const WIDENED = 0.02;
/** A subject's colours at the outer rim of the band that reach on beyond it: how much of them, times how far that is trusted. */
const REACHES = 0.08;
/** How wide the rims are on which the band is looked at and on which samples lie, in pixels. */
export const RIM = 3;
/** Between these standard deviations of its colours a background turns from plain to busy. */
const PLAIN = 0.04;
const BUSY = 0.12;

/** 1 where a plane is at least `from`, as a new plane. */
export function above(planes: Planes, plane: number, from: number): number {
  const out = planes.copy(plane);
  planes.ramp(out, from - 1e-4, from);
  return out;
}

/** What `work` draws on planes of its own, as one new plane. */
function drawn(planes: Planes, work: () => number): number {
  const out = planes.make();
  planes.briefly(() => planes.put(work(), out));
  return out;
}

/** The part of a picture in which a subject's alpha is not known. Planes of 0 or 1. */
export interface Band {
  unknown: number;
  /** Where the subject lies outside that part, and more of it than not inside. */
  inFront: number;
  /** Where it never grows: what was painted by hand. */
  settled: number;
  /** By how much the band was widened and grows, in pixels. */
  width: number;
}

/** The band of a subject's map, plane of 0..1: where it is not sure, and about that; with what is `hair`, and without what is `settled`. */
export function uncertainBand(planes: Planes, subject: number, hair: number, settled: number): Band {
  const long = Math.max(planes.width, planes.height);
  const width = Math.max(1, Math.round(WIDENED * Math.min(long, 2 * Math.sqrt(planes.sum(subject)))));
  const unknown = drawn(planes, () => {
    const band = above(planes, subject, SURE[0]);
    planes.without(band, above(planes, subject, SURE[1]));
    planes.widen(band, width);
    planes.most(band, hair);
    planes.without(band, settled);
    return band;
  });
  return { unknown, inFront: above(planes, subject, 0.5), settled, width };
}

/** What lies outside the band and is not the subject, as a new plane. */
export function behindOf(planes: Planes, unknown: number, inFront: number): number {
  const out = planes.copy(unknown);
  planes.most(out, inFront);
  planes.invert(out);
  return out;
}

/** The outermost pixels of the band, as a new plane. */
export function outerRim(planes: Planes, { unknown, inFront }: Band): number {
  return drawn(planes, () => {
    const rim = behindOf(planes, unknown, inFront);
    planes.widen(rim, RIM);
    planes.times(rim, unknown);
    return rim;
  });
}

/**
 * Widens the band where the subject reaches its outer rim, over a plain background: hair flies further than any map of a person says.
 * @param share how much of the subject there is, known on the rim; `trust` how far that is trusted
 * @returns whether it reaches anywhere
 */
export function growBand(planes: Planes, band: Band, rim: number, share: number, trust: number, busy: number): boolean {
  return planes.briefly(() => {
    const reaching = planes.product(rim, above(planes, planes.product(share, trust), REACHES));
    planes.without(reaching, above(planes, busy, 0.1));
    if (planes.sum(reaching) < 1) return false;
    planes.widen(reaching, band.width);
    planes.times(reaching, behindOf(planes, band.unknown, band.inFront));
    planes.without(reaching, band.settled);
    planes.most(band.unknown, reaching);
    return true;
  });
}

/**
 * From 0 where colours can tell the subject from what lies behind to 1 where they cannot, as a new plane: the background is busy, or no sure part of the
 * subject or of the background is near.
 */
export function busyness(planes: Planes, guide: Guide, { unknown, inFront, width }: Band): number {
  const { kernels } = planes.machine;
  return drawn(planes, () => {
    const wide = planes.copy(unknown);
    // Hair that flies beyond the band is no part of the background.
    planes.widen(wide, width);
    const behind = behindOf(planes, wide, inFront);
    const radius = Math.max(3, Math.max(planes.width, planes.height) / 12);
    const under = planes.mean(behind, radius);
    const none = above(planes, under, 0.01);
    planes.invert(none);
    kernels.mixIn(under, under, planes.count, 1, 0, 1e-4);
    kernels.power(under, planes.count, -1);
    const out = planes.make();
    for (const colour of guide) planes.briefly(() => kernels.mixIn(out, varianceOf(planes, colour, behind, under, radius), planes.count, 1, 1, 0));
    planes.ramp(out, PLAIN * PLAIN, BUSY * BUSY);
    planes.most(out, none);
    // A small head above clothes of other colours: all of it may lie in the band.
    const sure = planes.copy(inFront);
    planes.without(sure, unknown);
    planes.widen(sure, 2 * width);
    const alone = planes.copy(inFront);
    planes.without(alone, sure);
    planes.most(out, alone);
    return out;
  });
}

/** The variance of a colour about each pixel over those of weight 1; `under` is one over their share. */
function varianceOf(planes: Planes, colour: number, weight: number, under: number, radius: number): number {
  const weighted = planes.product(colour, weight);
  const mean = planes.mean(weighted, radius);
  planes.times(mean, under);
  planes.times(mean, mean);
  planes.times(weighted, colour);
  const squares = planes.mean(weighted, radius);
  planes.times(squares, under);
  planes.machine.kernels.mixIn(squares, mean, planes.count, 1, -1, 0);
  return squares;
}
