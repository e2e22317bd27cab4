import { grown } from '../frame';
import { defineOperation } from '../operation';

/** Between these distances a window goes over from what it finds itself to the coarse sheet, in fractions of the long side. */
const NEAR = 0.006;
const FAR = 0.011;

interface DistanceParams {
  level: number;
  /** Greatest distance, in fractions of the long side. */
  cap: number;
}

/** Distance, in fractions of the long side, to where a field is over `level`. */
export const distance = defineOperation<DistanceParams>({
  name: 'distance',
  coarse: ({ cap }) => (cap > FAR ? 'beside' : undefined),
  // Where it is farthest from two sides it has an edge, which enlarging rounds off.
  coarseSide: 2048,
  reads: ({ cap }, frame, region) => grown(region, Math.ceil(Math.min(cap, FAR) * frame.size) + 2),
  run: ({ machine, frame, inputs, region, out, wrap, grab, coarse }, { level, cap }) => {
    const { kernels } = machine;
    const { ptr, region: from } = inputs[0];
    const { width, height } = from;
    const far = grab(width * height * 4);
    const most = coarse === undefined ? cap : FAR;
    kernels.distance(ptr, far, width, height, level, most * frame.size, +wrap, 1);
    const count = region.width * region.height;
    kernels.cropPlane(far, width, region.x - from.x, region.y - from.y, out[0], region.width, region.height);
    kernels.mixIn(out[0], out[0], count, 1 / frame.size, 0, 0);
    if (coarse === undefined) return;
    const weight = grab(count * 4);
    kernels.fill(weight, count, 0);
    kernels.mixIn(weight, out[0], count, 0, 1, 0);
    kernels.smoothstep(weight, count, NEAR, FAR);
    kernels.lerpTo(out[0], coarse, weight, count);
  },
});
