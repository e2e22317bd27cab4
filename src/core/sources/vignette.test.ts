import { pullTile } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema } from '../piece/schema';
import { vignetteSourceSchema } from './vignette';

const bench = testBench(96);
const [W, H] = [240, 160];
const photo = bench.picture(W, H, () => [200, 200, 200]);

/** What is left of a grey of 200, by place. */
function left(params: object): (x: number, y: number) => number {
  const source = vignetteSourceSchema.parse({ kind: 'vignette', ...params });
  const tile = pullTile(bench, { photo, coats: [coatSchema.parse({ id: 'v', source, guards: 0 })] });
  const values = bench.machine.floats.slice(tile.ptr / 4, tile.ptr / 4 + W * H);
  return (x, y) => values[y * W + x] * 255;
}

describe('a vignette', () => {
  it('leaves the middle, and falls off monotonously to the corner as 1 / (1 + q²)² of the light (cos⁴ law, common practice)', () => {
    const at = left({ amount: 0.55, feather: 1, cx: 0.5, cy: 0.5 });
    expect(at(W / 2, H / 2)).toBeGreaterThan(199);
    const along = Array.from({ length: 100 }, (_, i) => at(W / 2 + Math.floor((i / 100) * (W / 2)), H / 2 + Math.floor((i / 100) * (H / 2))));
    along.slice(1).forEach((v, i) => expect(v).toBeLessThanOrEqual(along[i] + 1e-3));
    // At the corner 1 − 0.55 · 0.94 of the light is left, over a darkness that is nearly black.
    const corner = 200 * (1 - 0.55 * 0.94) ** (1 / 2.2);
    expect(Math.abs(at(W - 1, H - 1) - corner)).toBeLessThan(6);
  });
  it('is a circle within a pixel at roundness 1, and as wide as the picture at 0', () => {
    const reach = (at: (x: number, y: number) => number, dx: number, dy: number) => {
      let r = 0;
      while (r < 79 && at(Math.round(W / 2 - 0.5 + dx * r), Math.round(H / 2 - 0.5 + dy * r)) > 170) r++;
      return r;
    };
    const round = left({ amount: 1, size: 0.6, roundness: 1, cx: 0.5, cy: 0.5 });
    const radii = [0, 30, 45, 60, 90].map((a) => reach(round, Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180)));
    expect(Math.max(...radii) - Math.min(...radii)).toBeLessThanOrEqual(1);
    const wide = left({ amount: 1, size: 0.6, roundness: 0, cx: 0.5, cy: 0.5 });
    expect(reach(wide, 1, 0)).toBeGreaterThan(1.35 * reach(wide, 0, 1));
  });
  it('lightens as well', () => expect(left({ does: 'lighten', amount: 0.6 })(2, 2)).toBeGreaterThan(215));
});
