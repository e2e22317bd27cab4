import { isGrey } from './grey';

const field = (pixel: (i: number) => number[]) => Uint8Array.from({ length: 400 }, (_, i) => [...pixel(i >> 2), 255][i & 3]);

it('grey of any lightness is grey, and paper with a cast of a level or two', () => {
  expect(isGrey(field((i) => [i, i, i]))).toBe(true);
  expect(isGrey(field((i) => [i + 2, i + 1, i]))).toBe(true);
});

it('kraft paper is not, nor a grey sheet of which a tenth is red', () => {
  expect(isGrey(field(() => [170, 130, 95]))).toBe(false);
  expect(isGrey(field((i) => (i % 10 === 0 ? [200, 40, 40] : [128, 128, 128])))).toBe(false);
});
