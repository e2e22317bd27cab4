import { defineOperation } from '../operation';

/** Standard deviation of unit white noise under a cubic B-spline in two dimensions: 151/315. */
const SPLINE_DEVIATION = 151 / 315;
/** A cubic B-spline is close to a Gaussian of this many cells. */
const SPLINE_SIGMA = Math.sqrt(4 / 12);
/** Noise finer than a pixel is drawn up to this many times finer and averaged. */
const FINEST = 4;
/** Rows that are drawn finer at a time. */
const BAND = 64;

interface WhiteParams {
  /** How far it is softened down and across, in fractions of the long side. */
  sigma: number;
  across: number;
  seed: number;
}

/** White noise of deviation 1 under a cubic B-spline; below a pixel it fades as a real average would. */
export const white = defineOperation<WhiteParams>({
  name: 'white',
  run: ({ machine, frame, region, out, grab }, { sigma, across, seed }) => {
    const { kernels } = machine;
    const { width, height } = region;
    const cells = (s: number, length: number) => Math.max(2, (SPLINE_SIGMA * length) / (s * frame.size));
    // A sheet that continues holds a whole number of cells.
    const whole = (n: number) => (frame.wrap ? Math.round(n) : n);
    const want = [whole(cells(across, frame.width)), whole(cells(sigma, frame.height))];
    let finer = 1;
    while (finer < FINEST && (want[0] > finer * frame.width || want[1] > finer * frame.height)) finer *= 2;
    const [nx, ny] = [Math.min(want[0], finer * frame.width), Math.min(want[1], finer * frame.height)];
    const fade = Math.sqrt((nx / want[0]) * (ny / want[1]));
    const common = {
      across: nx / (finer * frame.width),
      down: ny / (finer * frame.height),
      px: frame.wrap ? nx : Math.ceil(nx) + 8,
      py: frame.wrap ? ny : Math.ceil(ny) + 8,
      seed,
      gain: fade / SPLINE_DEVIATION,
    };
    const scratch = grab(finer * width * 40 + 128);
    kernels.fill(out[0], width * height, 0);
    if (finer === 1) return void kernels.addSpline({ ...common, dst: out[0], w: width, h: height, x0: region.x, y0: region.y, scratch });
    const [fine, half] = [grab(width * BAND * finer * finer * 4), grab(width * BAND * finer * finer)];
    for (let y = 0; y < height; y += BAND) {
      const rows = Math.min(BAND, height - y);
      const [w, h] = [width * finer, rows * finer];
      kernels.fill(fine, w * h, 0);
      kernels.addSpline({ ...common, dst: fine, w, h, x0: region.x * finer, y0: (region.y + y) * finer, scratch });
      const to = out[0] + y * width * 4;
      kernels.shrink(fine, w, h, finer === 2 ? to : half);
      if (finer === 4) kernels.shrink(half, w / 2, h / 2, to);
    }
  },
});
