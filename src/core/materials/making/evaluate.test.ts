import { testMachine } from '@/testing/machine';
import { testSheets } from '@/testing/sheet';
import { PAGE } from '../../image/machine';
import { evaluate } from './evaluate';
import { frameOf } from './frame';
import { defineOperation } from './operation';
import { peakBytes } from './peak';
import { schedule } from './schedule';

const machine = testMachine(34);
const { sheet, values, memory } = testSheets(machine, PAGE, 32 * 2 ** 20);
const frame = frameOf(64, 1, 1, true);
const near = (list: Float32Array, value: number) => list.every((v) => Math.abs(v - value) < 1e-6);

it('a field that was copied keeps its value when the copy is changed, and the other way round', () => {
  const a = sheet({ wrap: true }).plane(2);
  const b = a.copy().scale(3);
  a.add(1);
  const c = b.copy().times(b);
  expect([near(values(a, 64), 3), near(values(b, 64), 6), near(values(c, 64), 36)]).toEqual([true, true, true]);
});

it('works out only what is wanted, each step once, and gives all memory back', () => {
  const on = sheet({ wrap: true });
  let runs = 0;
  const counted = defineOperation<null>({
    name: 'counted',
    run: ({ machine: { kernels }, out, region }) => {
      runs++;
      kernels.fill(out[0], region.width * region.height, 1);
    },
  });
  const one = on.step(counted, null);
  const unwanted = on.step(counted, null);
  const before = memory.used;
  const sum = one.copy().add(one).add(one.copy().scale(4));
  expect(near(values(sum, 64), 6)).toBe(true);
  expect(runs).toBe(1);
  expect(memory.used).toBe(before);
  expect(near(values(unwanted, 64), 1)).toBe(true);
});

it('gives memory back when a step fails', () => {
  const on = sheet({ wrap: true });
  const failing = defineOperation<null>({
    name: 'failing',
    inPlace: true,
    run: ({ grab }) => {
      grab(1000);
      throw new Error('It does not work.');
    },
  });
  const before = memory.used;
  expect(() => values(on.step(failing, null, on.plane(1)), 64)).toThrow('It does not work.');
  expect(memory.used).toBe(before);
});

it('leaves out a step that is idle at a size, with all that only it reads', () => {
  const on = sheet({ wrap: true });
  let made = 0;
  const detail = defineOperation<null>({
    name: 'detail',
    run: ({ machine: { kernels }, out, region }) => {
      made++;
      kernels.fill(out[0], region.width * region.height, 5);
    },
  });
  const onlyLarge = defineOperation<null>({
    name: 'onlyLarge',
    inPlace: true,
    isIdle: (_, { size }) => size <= 64,
    run: ({ machine: { kernels }, out, inputs, region }) => kernels.mixIn(out[0], inputs[1].ptr, region.width * region.height, 1, 1, 0),
  });
  const field = on.step(onlyLarge, null, on.plane(1), on.step(detail, null)).scale(2);
  expect([near(values(field, 64), 2), made]).toEqual([true, 0]);
  expect([near(values(field, 128), 12), made]).toEqual([true, 1]);
});

it('a window reads as far around itself as its blurs do', () => {
  const on = sheet({ wrap: true, seed: 9 });
  const field = on.white(0.01).blur(0.02).power(2).blur(0.01);
  const whole = values(field, 512);
  const large = frameOf(512, 1, 1, true);
  const window = { x: 100, y: 480, width: 64, height: 48 };
  const part = evaluate([field.value], { machine, memory, frame: large, window }, ([{ ptr, region }]) => ({
    region,
    floats: machine.floats.slice(ptr / 4, ptr / 4 + region.width * region.height),
  }));
  for (let y = 0; y < 48; y += 5)
    for (let x = 0; x < 64; x += 3) {
      const there = part.floats[(window.y + y - part.region.y) * part.region.width + window.x + x - part.region.x];
      // It goes over the lower edge, where the sheet begins again.
      expect(there).toBeCloseTo(whole[((window.y + y) % 512) * 512 + window.x + x], 5);
    }
});

it('says beforehand how much memory it takes', () => {
  const on = sheet({ wrap: true });
  const plan = schedule([on.noise(12).add(on.white(0.02)).blur(0.004).value], frame);
  // Two planes of 64 × 64 at once, what one step takes besides, and room for tables.
  expect(peakBytes(plan)).toBeGreaterThan(2 * 64 * 64 * 4);
  expect(peakBytes(plan)).toBeLessThan(8 * 64 * 64 * 4 + 13 * 2 ** 20);
});
