import { testBench } from '@/testing/machine';
import { Planes } from '../image/planes';
import { regionStrokeSchema } from '../strokes/schema';
import { laySnapped } from './snapped';

const bench = testBench(64);
const { machine, scratch } = bench;
const [W, H] = [200, 150];
// A wall of two tones that meet in a slanting line, with a narrow light mark on the darker one.
const edge = (y: number) => 100 + y / 10;
const photo = bench.picture(W, H, (x, y) => (x > edge(y) ? [200, 190, 170] : x > 40 && x < 44 ? [190, 170, 150] : [70, 60, 60]));

function laid(before: number, stroke: object) {
  scratch.reset();
  const planes = new Planes(machine, scratch, W, H);
  const plane = planes.make(before);
  laySnapped(planes, plane, photo, regionStrokeSchema.parse({ strength: 1, snap: true, ...stroke }));
  return (x: number, y: number) => machine.floats[plane / 4 + y * W + x];
}
// A tip of 60 pixels, 600 u, led down the darker side 20 pixels from the edge.
const along = {
  size: 600,
  points: [
    [84 / W, 40 / H, 1],
    [88 / W, 90 / H, 1],
  ],
};

describe('a stroke that snaps to edges', () => {
  it('is filled up to the edge that it comes near, and no further', () => {
    const at = laid(0, { does: 'put', ...along });
    for (const y of [45, 65, 85]) {
      expect(at(Math.floor(edge(y)) - 3, y)).toBeGreaterThan(0.85);
      expect(at(Math.ceil(edge(y)) + 3, y)).toBeLessThan(0.15);
    }
  });
  it('ends at its ring where there is no edge', () => {
    const at = laid(0, { does: 'put', ...along });
    expect(at(70, 65)).toBeGreaterThan(0.9);
    expect(at(51, 65)).toBeLessThan(0.05);
    expect(at(86, 140)).toBe(0);
  });
  it('erases in the same way, by its strength, and changes nothing elsewhere', () => {
    const at = laid(0.8, { does: 'take', ...along, strength: 0.5 });
    expect(at(86, 65)).toBeCloseTo(0.4, 2);
    expect(at(115, 65)).toBeGreaterThan(0.75);
    expect(at(180, 20)).toBeCloseTo(0.8, 5);
  });
});
