import { numbers } from '@/testing/machine';
import { compare } from './compare';

const W = 40;
const H = 30;
const random = numbers(3);
const noise = Uint8Array.from({ length: W * H * 4 }, (_, i) => (i % 4 === 3 ? 255 : Math.floor(random() * 256)));
const picture = (data: ArrayLike<number>) => ({ data, width: W, height: H });

it('finds no difference between a picture and itself', () => {
  expect(compare(picture(noise), picture(noise))).toEqual({ mean: 0, p95: 0, max: 0, ssim: 1, pixels: W * H, levels: 0 });
});

it('falls with noise and counts only where the mask is white', () => {
  const grey = new Uint8Array(W * H * 4).fill(128);
  const spot = Uint8Array.from(grey);
  spot[(10 * W + 10) * 4] = 255;
  const mask = new Uint8Array(W * H).fill(255);
  mask[10 * W + 10] = 0;
  expect(compare(picture(grey), picture(spot)).max).toBeGreaterThan(10);
  expect(compare(picture(grey), picture(spot), mask).max).toBe(0);
  expect(compare(picture(grey), picture(noise)).ssim).toBeLessThan(0.2);
});

it('gives the SSIM of two flat pictures that the paper’s formula gives', () => {
  const flat = (v: number) => new Uint8Array(W * H * 4).fill(v);
  const c1 = (0.01 * 255) ** 2;
  expect(compare(picture(flat(100)), picture(flat(120))).ssim).toBeCloseTo((2 * 100 * 120 + c1) / (100 ** 2 + 120 ** 2 + c1), 6);
});

it('refuses pictures of two sizes and an empty mask', () => {
  expect(() => compare(picture(noise), { data: noise, width: H, height: W })).toThrow('differ in size');
  expect(() => compare(picture(noise), picture(noise), new Uint8Array(W * H))).toThrow('no pixel');
});
