import { numbers } from '../../../testing/machine';
import { isUneven } from './even';

const [width, height] = [96, 64];
/** A grey sheet: its tone times a light that depends on the place, 0..1 across and down. */
function sheet(tone: () => number, light: (x: number, y: number) => number) {
  const pixels = new Float32Array(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const linear = tone() * light((i % width) / width, Math.floor(i / width) / height);
    pixels.fill(linear ** (1 / 2.2), i * 4, i * 4 + 3);
    pixels[i * 4 + 3] = 1;
  }
  return { width, height, pixels };
}

describe('uneven light of a scan', () => {
  const random = numbers(7);
  const mottled = () => 0.4 + 0.3 * random();
  it.each([
    ['a slope of one stop', (x: number) => 2 ** -x, true],
    ['corners a stop darker', (x: number, y: number) => 2 ** (-2 * ((x - 0.5) ** 2 + (y - 0.5) ** 2)), true],
    ['even light', () => 1, false],
    ['a tenth of a stop', (x: number) => 2 ** (-0.1 * x), false],
  ])('%s', (_name, light, uneven) => {
    expect(isUneven(sheet(mottled, light))).toBe(uneven);
  });

  it('a single dark stain is not uneven light', () => {
    const stain = (x: number, y: number) => (Math.hypot(x - 0.3, y - 0.4) < 0.12 ? 0.3 : 1);
    expect(isUneven(sheet(mottled, stain))).toBe(false);
  });
});
