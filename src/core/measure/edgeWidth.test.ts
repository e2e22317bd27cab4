import { edgeWidth } from '@/testing/edges';

const SIDE = 64;
/** A step blurred over so many pixels, across the picture. */
const step = (width: number) =>
  Uint8Array.from({ length: SIDE * SIDE * 4 }, (_, i) => {
    const x = (i >> 2) % SIDE;
    return 40 + 150 * Math.min(1, Math.max(0, (x - 31) / width));
  });
const all = { x: 0, y: 0, width: SIDE, height: SIDE };

it.each([1, 2, 3, 5])('an edge of %d pixels is measured as one', (width) => {
  expect(edgeWidth(step(width), SIDE, all)).toBeCloseTo(width, 0);
});

it('there is no edge in what is flat', () => {
  expect(edgeWidth(new Uint8Array(SIDE * SIDE * 4).fill(90), SIDE, all)).toBeNaN();
});
