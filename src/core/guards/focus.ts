import { Planes } from '../image/planes';
import { sampleAffine } from '../image/sample';
import { pictureAt } from '../image/picture';
import { padded } from '../image/tile';

/** Deviations of the two Gaussians whose gradients are compared, in pixels. */
const SHARP = 0.7;
const SOFT = Math.hypot(0.7, 1.2);
const LEVELS = 4;
/** Blurs that a level tells, in its own pixels; finer ones are left to the level before. */
const LEAST = 0.75;
const MOST = 1.9;
/** Side of the cells in which votes are gathered, in pixels. */
const CELL = 4;
/** Votes spread to where there are none: deviations in cells, each with this part of the weight of the one before. */
const SPREADS = [0.8, 2.5, 7, 20, 60];
/** The same on the subject, which is all about as far away: what is between its edges is as sharp as they are. */
const SUBJECT_SPREADS = [4, 10, 25, 60];
const FADING = 0.08;

/** Standard deviation, in pixels of the regions' planes, of what is taken as entirely out of focus. */
export const FULL_BLUR = 16;

/**
 * How far out of focus each place is: √(σ / FULL_BLUR), σ the deviation of the Gaussian that has blurred it, in pixels of the planes. By edges at four scales,
 * each by how much less steep it becomes when blurred a little more (after Zhuo & Sim 2011); subject and background apart.
 *
 * @param luma - 0..1. @param person - How far each place belongs to the subject.
 */
export function drawFocus(planes: Planes, luma: number, person: number): number {
  const out = planes.make();
  planes.briefly(() => {
    const { machine, scratch } = planes;
    const { kernels } = machine;
    const cells = new Planes(machine, scratch, Math.ceil(planes.width / CELL), Math.ceil(planes.height / CELL));
    const [weights, sums, otherWeights, otherSums] = [cells.make(), cells.make(), cells.make(), cells.make()];
    let level = planes;
    let plane = planes.copy(luma);
    kernels.mixIn(plane, plane, planes.count, 255, 0, 0);
    for (let l = 0; l < LEVELS && Math.min(level.width, level.height) > 16; l++) {
      const [sharp, soft] = [level.copy(plane), level.copy(plane)];
      level.blur(sharp, SHARP);
      level.blur(soft, SOFT);
      kernels.gatherFocus({
        sharp,
        soft,
        w: level.width,
        h: level.height,
        size: 1 << l,
        a: SHARP,
        b: SOFT,
        least: l === 0 ? 0 : LEAST,
        most: MOST,
        inside: person,
        pitch: planes.width,
        rows: planes.height,
        columns: cells.width,
        weights,
        sums,
        otherWeights,
        otherSums,
      });
      const next = new Planes(machine, scratch, level.width >> 1, level.height >> 1);
      const half = next.make();
      kernels.halvedPlane(plane, level.width, level.height, half);
      [level, plane] = [next, half];
    }
    const inner = spreadVotes(cells, weights, sums, SUBJECT_SPREADS);
    const outer = spreadVotes(cells, otherWeights, otherSums, SPREADS);
    const fine = enlarged(cells, inner, planes);
    planes.put(enlarged(cells, outer, planes), out);
    kernels.lerpTo(out, fine, person, planes.count);
    kernels.rootOfBlur(out, planes.count, FULL_BLUR);
  });
  return out;
}

/** The mean of the votes about each cell, from far where there are none near. */
function spreadVotes(cells: Planes, weights: number, sums: number, spreads: readonly number[]): number {
  const { kernels } = cells.machine;
  // Without any vote: a little blurred, ln(1 + 0.3).
  const [weight, sum] = [cells.make(1e-9), cells.make(1e-9 * Math.log(1.3))];
  let part = 1;
  for (const sigma of spreads) {
    cells.briefly(() => {
      for (const [of, into] of [
        [weights, weight],
        [sums, sum],
      ]) {
        const spread = cells.copy(of);
        cells.blur(spread, sigma);
        kernels.mixIn(into, spread, cells.count, 1, part, 0);
      }
    });
    part *= FADING;
  }
  kernels.dividedBy(sum, weight, cells.count, 1e-12);
  return sum;
}

/** A plane of cells, about −2 to 3, as one of pixels. */
function enlarged(cells: Planes, plane: number, planes: Planes): number {
  const { machine, scratch } = planes;
  const [low, high] = [-2, 4];
  const out = planes.make();
  planes.briefly(() => {
    machine.kernels.mixIn(plane, plane, cells.count, 1 / (high - low), 0, -low / (high - low));
    const picture = pictureAt(scratch.take(padded(cells.width, cells.height) * 8 + 64), cells.width, cells.height, 1, true);
    machine.kernels.greyDeep(plane, picture.levels[0], cells.width * cells.height, 1, 0);
    const tile = scratch.tile({ x: 0, y: 0, width: planes.width, height: planes.height });
    sampleAffine(machine, picture, { a: 1 / CELL, b: 0, c: 0, d: 1 / CELL, e: 0, f: 0 }, 'extend', tile);
    machine.kernels.mixIn(tile.ptr, tile.ptr, planes.count, high - low, 0, low);
    planes.put(tile.ptr, out);
  });
  return out;
}
