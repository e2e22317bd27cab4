import type { Planes } from '../image/planes';
import { behindOf, busyness, growBand, outerRim, RIM, type Band, type Guide } from './band';

/** How often the band may grow. */
const GROWTHS = 3;
/** How much the pairs of samples count against the smoothness of alpha over the colours, and where those cannot tell, what was found. */
const SAMPLED = 0.01;
const FOUND = 0.02;
/** Variance of a colour below which a difference is noise (ε of Levin, Lischinski & Weiss). */
const NOISE = 1e-6;

export interface MatteOrder {
  band: Band;
  /** The found subject, with its outline refined to the picture's edges: plane of 0..1. */
  found: number;
  /** Where colours are trusted whatever the background: strokes along hair. Plane of 0..1. */
  hair: number;
}

/**
 * The alpha of a subject, a new plane: 0 or 1 outside the band, and within it that of pairs of samples from both sides, made smooth over the picture's
 * colours (Levin, Lischinski & Weiss, A Closed-Form Solution to Natural Image Matting, 2008). Where the colours tell little, what was found counts.
 * The band grows where hair reaches beyond it.
 * @returns null if one side of the band has no pixel to learn from
 */
export function matte(planes: Planes, guide: Guide, { band, found, hair }: MatteOrder): number | null {
  const busy = busyness(planes, guide, band);
  planes.without(busy, hair);
  const alpha = planes.make();
  const trust = planes.make();
  const sample = (among: number, rounds: number) => planes.briefly(() => samplePairs(planes, guide, band, { among, share: alpha, trust, rounds }));
  for (let grown = 0; grown < GROWTHS; grown++) {
    const grows = planes.briefly(() => {
      const rim = outerRim(planes, band);
      return sample(rim, 2) && growBand(planes, band, rim, alpha, trust, busy);
    });
    if (!grows) break;
  }
  if (!sample(band.unknown, 5)) return null;
  planes.briefly(() => solve(planes, guide, band.unknown, { alpha, trust, inFront: band.inFront, busy, found }));
  return alpha;
}

interface Solving {
  /** The samples' alpha within the band, which gives way to what is solved. */
  alpha: number;
  trust: number;
  inFront: number;
  busy: number;
  found: number;
}

function solve(planes: Planes, guide: Guide, unknown: number, { alpha, trust, inFront, busy, found }: Solving): void {
  const { kernels } = planes.machine;
  const { width: w, height: h, count } = planes;
  const [r, g, b] = guide;
  // The data: the samples and what was found, by their weights.
  kernels.mixIn(trust, trust, count, SAMPLED, 0, 0);
  const data = planes.product(alpha, trust);
  const believed = planes.product(busy, found);
  kernels.mixIn(data, believed, count, 1, FOUND, 0);
  kernels.mixIn(trust, busy, count, 1, FOUND, 1e-7);
  const under = planes.copy(trust);
  kernels.power(under, count, -1);
  planes.times(data, under);
  // Outside the band alpha is known.
  const start = planes.copy(inFront);
  kernels.lerpTo(start, alpha, unknown, count);
  planes.put(start, alpha);
  const work = planes.scratch.take(kernels.matteBytes(w, h));
  kernels.solveMatte({ r, g, b, w, h, unknown, alpha, data, weight: trust, eps: NOISE, rounds: 60, work });
}

interface Sampling {
  /** The part of the band for which pairs are sought. */
  among: number;
  /** Planes that are filled in there. */
  share: number;
  trust: number;
  rounds: number;
}

/** Finds pairs of samples from the rims on either side of the band; false if a side has none. */
function samplePairs(planes: Planes, guide: Guide, { unknown, inFront }: Band, { among, share, trust, rounds }: Sampling): boolean {
  const { kernels } = planes.machine;
  const { scratch, width: w, height: h } = planes;
  const [r, g, b] = guide;
  const rim = planes.copy(unknown);
  planes.widen(rim, RIM);
  const listed = (side: number) => {
    planes.times(side, rim);
    const at = planes.make();
    const count = planes.briefly(() => kernels.listByLight(r, g, b, side, w, h, at, scratch.take(1025 * 4)));
    return { at, count, reach: planes.geodesic(side, guide, 0) };
  };
  const sure = planes.copy(inFront);
  planes.without(sure, unknown);
  const front = listed(sure);
  const behind = listed(behindOf(planes, unknown, inFront));
  if (front.count === 0 || behind.count === 0) return false;
  const lists = {
    front: front.at,
    fronts: front.count,
    reachFront: front.reach,
    behind: behind.at,
    behinds: behind.count,
    reachBehind: behind.reach,
  };
  const [pairs, miss] = [scratch.take(8 * w * h), planes.make()];
  kernels.pairColours({ r, g, b, unknown: among, w, h, ...lists, pairs, miss, share, trust, rounds });
  return true;
}

/** The colours in front and behind, six new planes, for an alpha of the whole picture (Germer et al. 2020). */
export function edgeColours(planes: Planes, guide: Guide, alpha: number): { front: Guide; behind: Guide } {
  const { scratch, width: w, height: h } = planes;
  const [r, g, b] = guide;
  const [fr, fg, fb, br, bg, bb] = Array.from({ length: 6 }, () => planes.make());
  planes.briefly(() => {
    const work = scratch.take(64 * w * h + 128);
    planes.machine.kernels.estimateColours({ r, g, b, alpha, w, h, out: fr, stride: fg - fr, work });
  });
  return { front: [fr, fg, fb], behind: [br, bg, bb] };
}
