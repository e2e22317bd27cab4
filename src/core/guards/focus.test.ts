import { testBench } from '@/testing/machine';
import { Random } from '../materials/random';
import { Planes } from '../image/planes';
import { drawFocus, FULL_BLUR } from './focus';

const { machine, scratch } = testBench(160);
const SIDE = 400;

/** Discs by chance on grey, blurred by a known Gaussian on either half; the deviation that is found, as a mean over a half. */
function found(left: number, right: number, person: (x: number) => number = () => 0): [number, number] {
  scratch.reset();
  const planes = new Planes(machine, scratch, SIDE, SIDE);
  const random = new Random(9);
  const sharp = new Float32Array(SIDE * SIDE).fill(0.5);
  for (let n = 0; n < 260; n++) {
    const [cx, cy, r, v] = [random.between(0, SIDE), random.between(0, SIDE), random.between(10, 28), random.between(0.1, 0.9)];
    for (let y = Math.max(0, Math.floor(cy - r)); y < Math.min(SIDE, cy + r); y++)
      for (let x = Math.max(0, Math.floor(cx - r)); x < Math.min(SIDE, cx + r); x++)
        if ((x - cx) ** 2 + (y - cy) ** 2 < r * r) sharp[y * SIDE + x] = v;
  }
  const [a, b, luma, where] = [planes.make(), planes.make(), planes.make(), planes.make()];
  for (const plane of [a, b]) machine.floats.set(sharp, plane / 4);
  planes.blur(a, left);
  planes.blur(b, right);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++) {
      const i = y * SIDE + x;
      machine.floats[luma / 4 + i] = machine.floats[(x < SIDE / 2 ? a : b) / 4 + i];
      machine.floats[where / 4 + i] = person(x);
    }
  const out = drawFocus(planes, luma, where);
  const mean = (from: number, to: number) => {
    let [sum, n] = [0, 0];
    for (let y = 20; y < SIDE - 20; y++) for (let x = from; x < to; x++, n++) sum += machine.floats[out / 4 + y * SIDE + x] ** 2 * FULL_BLUR;
    return sum / n;
  };
  return [mean(30, SIDE / 2 - 30), mean(SIDE / 2 + 30, SIDE - 30)];
}

describe('how far out of focus a photo is', () => {
  it.each([0.7, 1, 1.5, 2, 2.5, 3])('a Gaussian of %f pixels is found within 0.4, beside a sharp half', (sigma) => {
    const [sharp, soft] = found(0.5, sigma);
    expect(Math.abs(soft - sigma)).toBeLessThan(0.4);
    expect(sharp).toBeLessThan(0.6);
  });
  it('more blur reads as more, also where it reads too low', () => {
    const read = [1, 2, 4, 6].map((sigma) => found(0.5, sigma)[1]);
    read.slice(1).forEach((v, i) => expect(v).toBeGreaterThan(read[i] + 0.4));
    expect(read[3]).toBeGreaterThan(4.5);
  });
  it('on the subject its sharpest edges speak for what lies between them', () => {
    const [background, subject] = found(3, 3, (x) => (x < SIDE / 2 ? 0 : 1));
    expect(subject).toBeLessThan(background);
    expect(found(3, 0.6, (x) => (x < SIDE / 2 ? 0 : 1))[1]).toBeLessThan(0.9);
  });
});
