import * as z from 'zod';
import { isConvex, wholeCorners, type Corners } from '../image/corners';
import { apply, chain, invert, scaled, squareTo, type Point } from '../image/projection';
import { choice } from '../schema';
import { moved } from './moved';
import { defineTreatment } from './treatment';

/** Pixels beyond the picture that are read along its edge. */
const MARGIN = 2;

const schema = z.object({
  kind: z.literal('corners'),
  /** Where the picture's corners go, in fractions of it; clockwise from the left upper one. */
  corners: z
    .array(z.tuple([z.number().min(-10).max(10), z.number().min(-10).max(10)]))
    .length(4)
    .refine((corners) => isConvex(corners as Corners), 'the corners must go round without a dent')
    .default(wholeCorners),
  outside: choice(
    'Beyond the corners',
    [
      { value: 'extend', label: 'Extend' },
      { value: 'clear', label: 'Clear' },
    ],
    'extend',
    { help: 'What is seen where the picture does not reach.' },
  ),
});
type Params = z.output<typeof schema>;

const isFlat = ({ corners }: Params) => corners.every(([x, y], i) => x === wholeCorners[i][0] && y === wholeCorners[i][1]);

/** Puts a coat in perspective by its four corners. On an adjustment coat it does so with everything under that coat. */
export default defineTreatment({
  kind: 'corners',
  ofSurface: true,
  label: 'Perspective',
  words: 'four corners wall distort tilt skew receding homography',
  shows: false,
  schema,
  source: 'Heckbert, Fundamentals of Texture Mapping and Image Warping (1989), §2.2.3',
  reach: (p) => (isFlat(p) ? 0 : 1),
  neutral: isFlat,
  moves: () => true,
  move(context, region, p, own) {
    const { machine, scratch, width: w, height: h } = context;
    const map = chain(scaled(w, h), invert(squareTo(p.corners as Corners)), scaled(1 / w, 1 / h));
    const out = scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
    const mark = scratch.mark();
    const inside = scratch.plane(out.count + 8, 1);
    const read = moved(context, region, own, ({ x, y, width, height, dx, dy }) => {
      machine.kernels.projectedOffsets({ dx, dy, inside, w: width, h: height, x0: x, y0: y, pw: w, ph: h, margin: MARGIN, m: map });
    });
    machine.bytes.copyWithin(out.ptr, read.ptr, read.ptr + 4 * read.stride);
    if (p.outside === 'clear') machine.kernels.times(out.ptr + 3 * out.stride, inside, out.count, 1, 0);
    scratch.release(mark);
    return out;
  },
  apply() {
    throw new Error('A perspective is drawn by moving.');
  },
  moved(p, motion) {
    // The same perspective, seen from the new frame.
    const frame = squareTo(wholeCorners.map((corner) => motion.point(corner)) as Corners);
    const map = chain(frame, squareTo(p.corners as Corners), invert(frame));
    return { ...p, corners: wholeCorners.map((corner): Point => apply(map, corner)) };
  },
});
