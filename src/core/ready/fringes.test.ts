import { numbers, testBench } from '@/testing/machine';
import { findFringes } from './fringes';

const bench = testBench(128);
const [W, H] = [540, 360];
// Looked up once: in the test's own realm that is slow.
const { abs, exp, round } = Math;

/** Blocks of grey with soft edges; red taken `red` ‰ and blue `blue` ‰ too far out. */
function taken(red: number, blue: number, colour = [1, 1, 1]) {
  const next = numbers(11);
  const blocks = Array.from({ length: 14 }, () => [next() * W, next() * H, 15 + next() * 50, 12 + next() * 40, 60 + next() * 180]);
  const edge = (d: number) => (d < -6 ? 0 : d > 6 ? 1 : 1 / (1 + exp(-d * 1.6)));
  const scene = (x: number, y: number) =>
    blocks.reduce((v, [bx, by, w, h, tone]) => v + (tone - v) * edge(w - abs(x - bx)) * edge(h - abs(y - by)), 30);
  const at = (x: number, y: number, k: number) => scene(W / 2 + (x + 0.5 - W / 2) / k, H / 2 + (y + 0.5 - H / 2) / k);
  return bench.picture(W, H, (x, y) => [1 + red / 1000, 1, 1 + blue / 1000].map((k, c) => round(at(x, y, k) * colour[c])));
}

describe('lateral colour fringes are found', () => {
  it.each([
    [2, -1.5],
    [-1, 2.5],
    [0, 0],
  ])('to a fifth of a thousandth (red %d, blue %d)', (red, blue) => {
    const found = findFringes(bench.machine, taken(red, blue))!;
    expect(Math.abs(found.red - red)).toBeLessThan(0.2);
    expect(Math.abs(found.blue - blue)).toBeLessThan(0.2);
    expect(found.edges).toBeGreaterThan(200);
  });
  it('where the channels differ in strength, too', () => {
    const found = findFringes(bench.machine, taken(1.5, 1.5, [1, 0.7, 0.4]))!;
    expect(Math.abs(found.red - 1.5)).toBeLessThan(0.3);
    expect(Math.abs(found.blue - 1.5)).toBeLessThan(0.3);
  });
  it('not on a plain ground', () => {
    expect(
      findFringes(
        bench.machine,
        bench.picture(400, 300, (x) => [100 + x / 10, 120, 130]),
      ),
    ).toBeNull();
  });
});
