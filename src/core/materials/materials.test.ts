import { PAGE } from '../image/machine';
import { testMachine } from '@/testing/machine';
import { testSheets } from '@/testing/sheet';
import { controlsOf } from '../schema';
import { generate, materialScratch } from './generate';
import { families, materialById, materials } from '.';
import { turnedLattice } from './lattice';

const machine = testMachine(16);
const START = PAGE;
machine.memory.grow(Math.ceil((materialScratch(512, 512) + 2 ** 22) / 65536));

function make(id: string, side: number, seed = 7, params: Record<string, unknown> = {}): Uint8Array {
  generate(machine, { material: materialById(id), params, seed, width: side, height: side }, START, START + side * side * 4);
  return machine.bytes.slice(START, START + side * side * 4);
}

const luma = (d: Uint8Array, i: number) => (0.2126 * d[4 * i] + 0.7152 * d[4 * i + 1] + 0.0722 * d[4 * i + 2]) / 255;

describe.each(materials.map((m) => m.id))('%s', (id) => {
  const material = materialById(id);
  const full = make(id, 512);
  const n = 512 * 512;

  it('has the mean luma that its entry states', () => {
    let sum = 0;
    for (let i = 0; i < n; i++) sum += luma(full, i);
    expect(Math.abs(sum / n - material.luma)).toBeLessThan(0.06);
  });

  it('is the same for a seed and another for another', () => {
    expect(Buffer.compare(Buffer.from(make(id, 128)), Buffer.from(make(id, 128)))).toBe(0);
    expect(Buffer.compare(Buffer.from(make(id, 128)), Buffer.from(make(id, 128, 8)))).not.toBe(0);
  });

  it('at half the size is the whole reduced: no feature appears or vanishes', () => {
    const half = make(id, 256);
    let sum = 0;
    let blurred = 0;
    // Compared in blocks of 8 pixels, where the grain that cannot be kept at half the size averages out, and pixel by pixel more loosely.
    for (let by = 0; by < 32; by++) {
      for (let bx = 0; bx < 32; bx++) {
        let a = 0;
        let b = 0;
        for (let y = 0; y < 8; y++) {
          for (let x = 0; x < 8; x++) {
            const [i, j] = [bx * 8 + x, by * 8 + y];
            const mean =
              (luma(full, 2 * j * 512 + 2 * i) +
                luma(full, 2 * j * 512 + 2 * i + 1) +
                luma(full, (2 * j + 1) * 512 + 2 * i) +
                luma(full, (2 * j + 1) * 512 + 2 * i + 1)) /
              4;
            const small = luma(half, j * 256 + i);
            sum += Math.abs(mean - small);
            a += mean;
            b += small;
          }
        }
        blurred += Math.abs(a - b) / 64;
      }
    }
    expect((255 * blurred) / 1024).toBeLessThan(2.5);
    expect((255 * sum) / (256 * 256)).toBeLessThan(9);
  });

  it('is never flat', () => {
    let spread = 0;
    for (let i = 1; i < n; i++) spread += Math.abs(luma(full, i) - luma(full, i - 1));
    expect(spread / n).toBeGreaterThan(0.0005);
  });

  it('suggests a start and carries words for its controls', () => {
    expect(material.suggest.strength).toBeGreaterThan(0.2);
    const controls = controlsOf(material.params);
    expect(controls.length).toBeGreaterThan(1);
    controls.forEach((c) => expect(c.meta.label.length).toBeGreaterThan(2));
  });

  if (material.seamless) {
    it('continues over its edges: the step there is no greater than the steps inside, at the 99th percentile', () => {
      const steps: number[] = [];
      const seam: number[] = [];
      for (let y = 0; y < 512; y++) {
        seam.push(Math.abs(luma(full, y * 512) - luma(full, y * 512 + 511)));
        seam.push(Math.abs(luma(full, y) - luma(full, 511 * 512 + y)));
        for (let x = 1; x < 512; x += 5) {
          steps.push(
            Math.abs(luma(full, y * 512 + x) - luma(full, y * 512 + x - 1)),
            Math.abs(luma(full, x * 512 + y) - luma(full, (x - 1) * 512 + y)),
          );
        }
      }
      const at99 = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(list.length * 0.99)];
      expect(at99(seam)).toBeLessThanOrEqual(at99(steps) * 1.25 + 0.01);
    });
  }
});

it('is a shelf of at least 45, every family with something in it, no name or id twice', () => {
  expect(materials.length).toBeGreaterThanOrEqual(45);
  for (const key of ['id', 'label'] as const) expect(new Set(materials.map((m) => m[key])).size).toBe(materials.length);
  for (const family of families) expect(materials.some((m) => m.family === family.id)).toBe(true);
});

describe('noise', () => {
  const sheets = testSheets(machine, START, materialScratch(256, 256));
  const sheet = () => sheets.sheet({ seed: 3, wrap: true });
  it('has mean 0 and deviation 1, at low and at high frequency', () => {
    const s = sheet();
    for (const f of [2.5, 9, 20]) {
      const { mean, deviation } = s.moments(s.noise(f, { octaves: 4 }));
      expect(Math.abs(mean)).toBeLessThan(0.12);
      expect(deviation).toBeGreaterThan(0.8);
      expect(deviation).toBeLessThan(1.2);
    }
    const { deviation } = s.moments(s.white(0.01));
    expect(Math.abs(deviation - 1)).toBeLessThan(0.1);
  });
  it('turns a lattice by integers that close after one sheet', () => {
    for (const [f, angle] of [
      [14, 0.4],
      [60, 1.1],
      [3, 0.9],
      [230, 5],
    ] as const) {
      const { a, b, n, t } = turnedLattice(f, angle);
      expect(n).toBe(a * a + b * b);
      expect((a + b * t) % n).toBe(0);
      expect((((-b + a * t) % n) + n) % n).toBe(0);
      expect(Math.abs(Math.hypot(a, b) - f)).toBeLessThan(f * 0.1 + 1.5);
    }
  });
  it('says when a sheet cannot be made', () => {
    const order = { material: materialById('paper.kraft'), params: {}, seed: 1, width: 100, height: 100 };
    expect(() => generate(machine, order, START, START + 1e6)).toThrow('multiples of 16');
    expect(() => materialById('paper.gold')).toThrow('There is no material called "paper.gold"');
  });
});
