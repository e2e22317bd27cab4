import { Random } from '../../src/core/materials/random';

/** Value noise with smooth interpolation for the drawing program; speed does not matter here. */
export function makeNoise(seed: number) {
  const random = new Random(seed);
  const N = 256;
  const table = Float32Array.from({ length: N * N }, () => random.next() * 2 - 1);
  const at = (i: number, j: number) => table[(((j % N) + N) % N) * N + (((i % N) + N) % N)];
  const one = (x: number, y: number) => {
    const i = Math.floor(x);
    const j = Math.floor(y);
    const s = (t: number) => t * t * t * (t * (t * 6 - 15) + 10);
    const u = s(x - i);
    const v = s(y - j);
    const top = at(i, j) + (at(i + 1, j) - at(i, j)) * u;
    const bottom = at(i, j + 1) + (at(i + 1, j + 1) - at(i, j + 1)) * u;
    return top + (bottom - top) * v;
  };
  /** Fractal sum, roughly −1..1; octaves turned against each other. */
  return (x: number, y: number, octaves = 6, gain = 0.5) => {
    let sum = 0;
    let amplitude = 1;
    let total = 0;
    for (let o = 0; o < octaves; o++) {
      sum += amplitude * one(x, y);
      total += amplitude;
      amplitude *= gain;
      [x, y] = [1.93 * (0.8 * x - 0.6 * y) + 17.3, 1.93 * (0.6 * x + 0.8 * y) + 5.1];
    }
    return sum / total;
  };
}

/** The same in three dimensions. */
export function makeSolid(seed: number) {
  const random = new Random(seed);
  const N = 64;
  const table = Float32Array.from({ length: N * N * N }, () => random.next() * 2 - 1);
  const at = (i: number, j: number, k: number) => table[((k & 63) * N + (j & 63)) * N + (i & 63)];
  const s = (t: number) => t * t * (3 - 2 * t);
  const one = (x: number, y: number, z: number) => {
    const [i, j, k] = [Math.floor(x), Math.floor(y), Math.floor(z)];
    const [u, v, w] = [s(x - i), s(y - j), s(z - k)];
    const row = (b: number, c: number) => at(i, b, c) + (at(i + 1, b, c) - at(i, b, c)) * u;
    const plane = (c: number) => row(j, c) + (row(j + 1, c) - row(j, c)) * v;
    return plane(k) + (plane(k + 1) - plane(k)) * w;
  };
  return (x: number, y: number, z: number, octaves = 4, gain = 0.5) => {
    let sum = 0;
    let amplitude = 1;
    let total = 0;
    for (let o = 0; o < octaves; o++) {
      sum += amplitude * one(x, y, z);
      total += amplitude;
      amplitude *= gain;
      [x, y, z] = [2.03 * (0.8 * x - 0.6 * z) + 7.3, 2.03 * y + 3.7, 2.03 * (0.6 * x + 0.8 * z) + 1.9];
    }
    return sum / total;
  };
}
