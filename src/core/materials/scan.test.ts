import { testMachine } from '@/testing/machine';

const machine = testMachine(32);
const AT = 1 << 16;
const FINER = 3;
const [W, H] = [128, 96];

/** The noise of a scan of W × H pixels on a region of a sheet three times as fine, or on the scan itself. */
function grain(finer: number, region = { x0: 0, y0: 0, w: W * finer, h: H * finer }): Float32Array {
  machine.kernels.scanGrain({ dst: AT, ...region, pitch: W * finer, rows: H * finer, W, H, finer, seed: 5 });
  return machine.floats.slice(AT / 4, AT / 4 + region.w * region.h);
}

const deviation = (values: Float32Array) => Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length);
const fine = grain(FINER);
const scan = grain(1);

it('scanner noise is as strong on a finer sheet: the deviation of a triangular distribution is its half width by √6', () => {
  for (const values of [scan, fine]) expect(deviation(values) / (65535 / Math.sqrt(6))).toBeCloseTo(1, 1);
});

it('reduced to the scan’s pixels it is the noise of the scan, softened', () => {
  let [xy, xx] = [0, 0];
  for (let y = 1; y < H - 1; y++)
    for (let x = 1; x < W - 1; x++) {
      let sum = 0;
      for (let j = 0; j < FINER; j++) for (let i = 0; i < FINER; i++) sum += fine[(y * FINER + j) * W * FINER + x * FINER + i] / FINER ** 2;
      xy += sum * scan[y * W + x];
      xx += sum * sum;
    }
  const inner = (W - 2) * (H - 2);
  expect(xy / Math.sqrt(xx * inner) / deviation(scan)).toBeGreaterThan(0.75);
});

it('a part of a sheet has the same noise as the whole, over its edge too', () => {
  const part = grain(FINER, { x0: W * FINER - 20, y0: 30, w: 40, h: 16 });
  for (let j = 0; j < 16; j++)
    for (let i = 0; i < 40; i++) expect(part[j * 40 + i]).toBe(fine[(30 + j) * W * FINER + ((W * FINER - 20 + i) % (W * FINER))]);
});
