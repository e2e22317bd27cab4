import { testMachine } from '@/testing/machine';
import { testSheets } from '@/testing/sheet';
import { PAGE } from '../image/machine';
import { borderDistance, roughBorder } from './border';
import { frameOf } from './making/frame';

const machine = testMachine(64);
const sheets = testSheets(machine, PAGE, 62 * 2 ** 20);
/** A sheet for a photo of 2000 × 1328: its short side is lengthened to a multiple of 16. */
const sheetOf = (aspect = 2000 / 1328) => sheets.sheet({ seed: 5, aspect });

describe('a material in the photo’s shape', () => {
  it('ends where the photo does, whatever the sides of its planes', () => {
    const sheet = sheetOf();
    expect(sheet.right).toBe(1);
    expect(sheet.bottom).toBeCloseTo(0.664, 6);
    for (const side of [256, 512, 1024]) {
      const { width, height } = frameOf(side, sheet.right, sheet.bottom, false);
      expect(width).toBe(side);
      expect(height / side).toBeGreaterThanOrEqual(sheet.bottom);
      expect(height % 16).toBe(0);
    }
    const upright = sheetOf(1328 / 2000);
    expect(upright.bottom).toBe(1);
    expect(upright.right).toBeCloseTo(0.664, 6);
  });
  it('has its events at the same places at every size', () => {
    const sheet = sheetOf();
    const places = sheet.scatter(300, sheet.plane(0), 1, 0).map(({ x, y }) => ({ x, y, r: 0.004 }));
    expect(Math.max(...places.map(({ y }) => y))).toBeLessThan(0.664);
    expect(Math.max(...places.map(({ y }) => y))).toBeGreaterThan(0.64);
    const spots = sheet.spots(places);
    for (const side of [256, 1024]) {
      const { width } = frameOf(side, sheet.right, sheet.bottom, false);
      const values = sheets.values(spots, side);
      for (const { x, y } of places) expect(values[Math.floor(y * side) * width + Math.floor(x * side)]).toBeGreaterThan(0.9);
    }
  });
  it('measures its border from where it ends', () => {
    const sheet = sheetOf();
    const d = borderDistance(sheet);
    expect(sheet.at(d, 0.5, 0.332)).toBeCloseTo(0.332, 2);
    expect(sheet.at(d, 0.25, 0.332)).toBeCloseTo(0.25, 2);
    expect(sheet.at(d, 0.5, 0.654)).toBeCloseTo(0.01, 2);
    expect(sheet.at(d, 0.97, 0.3)).toBeCloseTo(0.03, 2);
  });
  it('has a rough border that covers all four sides and leaves the middle clear', () => {
    const sheet = sheetOf();
    const border = roughBorder(sheet, 0.05, 1);
    for (const [x, y] of [
      [0.001, 0.3],
      [0.998, 0.3],
      [0.5, 0.001],
      [0.5, 0.66],
    ])
      expect(sheet.at(border, x, y)).toBeGreaterThan(0.9);
    expect(sheet.at(border, 0.5, 0.33)).toBeLessThan(0.01);
    // No line of it runs parallel to the frame: the depth at which it ends differs along a side.
    const depth = (x: number) => {
      let y = 0;
      while (y < 0.3 && sheet.at(border, x, y) > 0.5) y += 1 / 512;
      return y;
    };
    const depths = Array.from({ length: 40 }, (_, i) => depth(0.2 + 0.6 * (i / 39)));
    expect(Math.max(...depths) - Math.min(...depths)).toBeGreaterThan(0.015);
  });
});
