import type { Tones } from './faces';
import type { Planes } from '../image/planes';

/** The value below which a given share of a plane's values lies, from a histogram of 1024 steps over 0..most. */
function quantile(planes: Planes, plane: number, share: number, most: number): number {
  const { floats } = planes.machine;
  const counts = new Uint32Array(1024);
  const n = planes.width * planes.height;
  // One pixel in seven is enough.
  let seen = 0;
  for (let i = 0; i < n; i += 7, seen++) counts[Math.min(1023, Math.max(0, Math.floor((floats[plane / 4 + i] / most) * 1024)))]++;
  let sum = 0;
  for (let v = 0; v < 1024; v++) {
    sum += counts[v];
    if (sum >= share * seen) return ((v + 1) / 1024) * most;
  }
  return most;
}

/** Fine detail: the deviation of luma about its mean over a few pixels, against what is usual on this photo. */
export function drawDetail(planes: Planes, { luma }: Tones, radius: number): number {
  const out = planes.make();
  planes.briefly(() => {
    const { kernels } = planes.machine;
    const mean = planes.mean(luma, radius);
    const variance = planes.mean(planes.product(luma, luma), radius);
    kernels.mixIn(variance, planes.product(mean, mean), planes.count, 1, -1, 0);
    kernels.clampTo(variance, planes.count, 1e-8, 1);
    kernels.power(variance, planes.count, 0.5);
    const [usual, strong] = [quantile(planes, variance, 0.6, 0.5), quantile(planes, variance, 0.95, 0.5)];
    // A photo without any detail has none that stands out.
    planes.ramp(variance, Math.max(usual, 0.012), Math.max(strong, usual * 1.5, 0.03));
    planes.blur(variance, radius * 0.6);
    kernels.copyWindow(variance, planes.width, out, planes.width, planes.width, planes.height);
  });
  return out;
}

const CELLS = 24;

/** Strong colours that are rare on this photo: a red flag, a bright scarf. */
export function drawAccents(planes: Planes, { blue, red }: Tones, radius: number): number {
  const out = planes.make();
  planes.briefly(() => {
    const { floats, kernels } = planes.machine;
    const [u, v] = [planes.mean(blue, radius), planes.mean(red, radius)];
    const n = planes.width * planes.height;
    const cell = (value: number) => Math.min(CELLS - 1, Math.max(0, Math.floor((value + 1) * 0.5 * CELLS)));
    // How much of the photo has about this colour, counted in coarse bins and interpolated.
    const counts = new Float64Array(CELLS * CELLS);
    const step = 5;
    for (let i = 0; i < n; i += step) counts[cell(floats[v / 4 + i]) * CELLS + cell(floats[u / 4 + i])] += step / n;
    const chroma = planes.product(u, u);
    kernels.mixIn(chroma, planes.product(v, v), planes.count, 1, 1, 0);
    kernels.power(chroma, planes.count, 0.5);
    planes.ramp(chroma, 0.16, 0.3);
    const rarity = new Float32Array(CELLS * CELLS);
    for (let y = 0; y < CELLS; y++) {
      for (let x = 0; x < CELLS; x++) {
        let share = 0;
        for (let j = Math.max(0, y - 1); j <= Math.min(CELLS - 1, y + 1); j++)
          for (let i = Math.max(0, x - 1); i <= Math.min(CELLS - 1, x + 1); i++) share += counts[j * CELLS + i];
        rarity[y * CELLS + x] = Math.min(1, Math.max(0, (0.16 - share) / 0.08));
      }
    }
    const grid = planes.scratch.take(rarity.byteLength);
    floats.set(rarity, grid / 4);
    kernels.timesGrid(chroma, u, v, planes.count, grid, CELLS);
    planes.blur(chroma, radius * 0.5);
    kernels.copyWindow(chroma, planes.width, out, planes.width, planes.width, planes.height);
  });
  return out;
}
