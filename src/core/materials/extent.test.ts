import { testMachine } from '@/testing/machine';
import { PAGE } from '../image/machine';
import { borderDistance, roughBorder } from './border';
import { materialScratch } from './generate';
import { Sheet } from './sheet';

const machine = testMachine(64);
machine.memory.grow(Math.ceil(materialScratch(1024, 704) / 65536));
/** A sheet for a photo of 2000 × 1328: its short side is lengthened to a multiple of 16. */
const sheetOf = (side: number, aspect = 2000 / 1328) => {
  const short = Math.ceil(side / aspect / 16) * 16;
  return new Sheet(machine, side, short, 5, false, PAGE, materialScratch(side, short), aspect);
};

describe('a material in the photo’s shape', () => {
  it('ends where the photo does, whatever the sides of its planes', () => {
    for (const side of [256, 512, 1024]) {
      const sheet = sheetOf(side);
      expect(sheet.right).toBe(1);
      expect(sheet.bottom).toBeCloseTo(0.664, 6);
      expect(sheet.height / sheet.size).toBeGreaterThanOrEqual(sheet.bottom);
    }
    const upright = new Sheet(machine, 352, 512, 5, false, PAGE, materialScratch(352, 512), 1328 / 2000);
    expect(upright.bottom).toBe(1);
    expect(upright.right).toBeCloseTo(0.664, 6);
  });
  it('has its events at the same places at every size', () => {
    const places = (side: number) => {
      const sheet = sheetOf(side);
      return sheet.scatter(300, sheet.plane(0), 1, 0).map(({ x, y }) => [x, y]);
    };
    const [small, large] = [places(256), places(1024)];
    expect(large).toEqual(small);
    expect(Math.max(...small.map(([, y]) => y))).toBeLessThan(0.664);
    expect(Math.max(...small.map(([, y]) => y))).toBeGreaterThan(0.64);
  });
  it('measures its border from where it ends', () => {
    const sheet = sheetOf(512);
    const d = borderDistance(sheet);
    expect(sheet.at(d, 0.5, 0.332)).toBeCloseTo(0.332, 2);
    expect(sheet.at(d, 0.25, 0.332)).toBeCloseTo(0.25, 2);
    expect(sheet.at(d, 0.5, 0.654)).toBeCloseTo(0.01, 2);
    expect(sheet.at(d, 0.97, 0.3)).toBeCloseTo(0.03, 2);
  });
  it('has a rough border that covers all four sides and leaves the middle clear', () => {
    const sheet = sheetOf(512);
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
