import { PAGE } from '../image/machine';
import { testMachine } from '@/testing/machine';
import { generate, materialScratch } from './generate';
import { materialById } from '.';

const machine = testMachine(16);
const START = PAGE;
machine.memory.grow(Math.ceil((materialScratch(512, 512) + 2 ** 22) / 65536));

/** Quintic fade of Perlin 2002. */
const fade = (t: number) => t * t * t * (t * (t * 6 - 15) + 10);

/** Gradient noise in any number of dimensions: faded mixtures of the corners' gradients times the way to them. */
function gradientNoise(place: number[], dot: (corner: number[], way: number[]) => number): number {
  const cell = place.map((v) => Math.floor(v));
  const part = place.map((v, i) => v - cell[i]);
  const mix = (axis: number, corner: number[]): number => {
    if (axis < 0)
      return dot(
        corner,
        place.map((v, i) => v - corner[i]),
      );
    const low = mix(axis - 1, corner);
    const high = mix(
      axis - 1,
      corner.map((v, i) => (i === axis ? v + 1 : v)),
    );
    return low + fade(part[axis]) * (high - low);
  };
  return mix(place.length - 1, cell);
}

// Ken Perlin, Improving Noise (SIGGRAPH 2002), reference implementation: its permutation and its sixteen directions.
// prettier-ignore
const permutation = [151,160,137,91,90,15,131,13,201,95,96,53,194,233,7,225,140,36,103,30,69,142,8,99,37,240,21,10,23,190,6,148,247,120,234,75,0,26,197,62,94,252,219,203,117,35,11,32,57,177,33,88,237,149,56,87,174,20,125,136,171,168,68,175,74,165,71,134,139,48,27,166,77,146,158,231,83,111,229,122,60,211,133,230,220,105,92,41,55,46,245,40,244,102,143,54,65,25,63,161,1,216,80,73,209,76,132,187,208,89,18,169,200,196,135,130,116,188,159,86,164,100,109,198,173,186,3,64,52,217,226,250,124,123,5,202,38,147,118,126,255,82,85,212,207,206,59,227,47,16,58,17,182,189,28,42,223,183,170,213,119,248,152,2,44,154,163,70,221,153,101,155,167,43,172,9,129,22,39,253,19,98,108,110,79,113,224,232,178,185,112,104,218,246,97,228,251,34,242,193,238,210,144,12,191,179,162,241,81,51,145,235,249,14,239,107,49,192,214,31,181,199,106,157,184,84,204,176,115,121,50,45,127,4,150,254,138,236,205,93,222,114,67,29,24,72,243,141,128,195,78,66,215,61,156,180];
const p = (i: number) => permutation[i & 255];
const perlin = ([i, j, k]: number[], [x, y, z]: number[]) => {
  const h = p(p(p(i) + j) + k) & 15;
  const u = h < 8 ? x : y;
  const v = h < 4 ? y : h === 12 || h === 14 ? x : z;
  return ((h & 1) === 0 ? u : -u) + ((h & 2) === 0 ? v : -v);
};

/** The finaliser of MurmurHash3 on our cells' keys, and free gradients from its halves. */
function ours(seed: number) {
  const hash = (k: number) => {
    let h = (Math.imul(k, 0x27d4eb2d) ^ Math.imul(seed, 0x165667b1)) >>> 0;
    h = Math.imul(h ^ (h >>> 16), 0x85ebca6b) >>> 0;
    h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35) >>> 0;
    return (h ^ (h >>> 16)) >>> 0;
  };
  return ([i, j]: number[], [x, y]: number[]) => {
    const h = hash((Math.imul(i, 0x3c6ef35f) + Math.imul(j, 0x19660d)) | 0);
    return (((h & 0xffff) * 2) / 65535 - 1) * x + (((h >>> 16) * 2) / 65535 - 1) * y;
  };
}

describe('gradient noise (Perlin 2002)', () => {
  it('the formula gives the published value of the reference implementation, noise(3.14, 42, 7)', () => {
    // As given with the Java reference at Rosetta Code, "Perlin noise"; from memory.
    expect(gradientNoise([3.14, 42, 7], perlin)).toBeCloseTo(0.13691995878400012, 15);
  });

  it('and the kernel is that formula with our hash and gradients', () => {
    for (const seed of [1, 77]) {
      for (let k = 0; k < 200; k++) {
        const [x, y] = [k * 0.377 - 31, k * 0.731 - 64];
        expect(machine.kernels.noiseAt(x, y, seed)).toBeCloseTo(gradientNoise([Math.fround(x), Math.fround(y)], ours(seed)), 4);
      }
    }
  });

  it('is nought on the lattice and its curvature does not jump there', () => {
    const at = (x: number) => machine.kernels.noiseAt(x, 0.37, 5);
    expect(machine.kernels.noiseAt(4, -7, 5)).toBeCloseTo(0, 6);
    const bend = (x: number, h: number) => (at(x + h) - 2 * at(x) + at(x - h)) / (h * h);
    for (let i = -3; i < 4; i++) expect(Math.abs(bend(i + 0.006, 0.004) - bend(i - 0.006, 0.004))).toBeLessThan(1);
  });
});

describe('distances to points (Worley 1996)', () => {
  const W = 128;
  const planes = Array.from({ length: 5 }, (_, i) => START + i * W * W * 4);
  const cache = START + 5 * W * W * 4;
  // The lattice turned by (3, 2): 13 cells on the sheet, so that t·b ≡ −a mod n.
  const draw = () => {
    for (let i = 0; i < W * W; i++) {
      machine.floats[planes[3] / 4 + i] = ((i % W) + 0.5) / W;
      machine.floats[planes[4] / 4 + i] = (Math.floor(i / W) + 0.5) / W;
    }
    machine.kernels.worley({
      f1: planes[0],
      f2: planes[1],
      f3: planes[2],
      count: W * W,
      a: 3,
      b: 2,
      n: 13,
      t: 5,
      sx: 1,
      seed: 9,
      x: planes[3],
      y: planes[4],
      cache,
    });
    return planes.slice(0, 3).map((plane) => machine.floats.slice(plane / 4, plane / 4 + W * W));
  };

  it('are ordered, and fall or rise by no more than one for one', () => {
    const [f1, f2, f3] = draw();
    const cell = Math.sqrt(13) / W;
    let steepest = 0;
    for (let i = 0; i < W * W; i++) {
      expect(f1[i] <= f2[i] && f2[i] <= f3[i]).toBe(true);
      if (i % W > 0) steepest = Math.max(steepest, Math.abs(f1[i] - f1[i - 1]));
    }
    expect(steepest).toBeLessThan(cell * 1.001);
    expect(steepest).toBeGreaterThan(cell * 0.97);
  });

  it('their mean lies between that of a lattice’s middles and that of points thrown at random', () => {
    // To the middle of a unit square: (√2 + ln(1 + √2)) / 6; to the nearest of a Poisson process of density 1: 1/2.
    const [f1] = draw();
    const mean = f1.reduce((s, v) => s + v, 0) / f1.length;
    expect(mean).toBeGreaterThan((Math.SQRT2 + Math.log(1 + Math.SQRT2)) / 6);
    expect(mean).toBeLessThan(0.5);
  });
});

/** Power of the two-dimensional Fourier transform of a square plane whose side is a power of two. */
function spectrum(values: Float64Array, n: number): Float64Array {
  const re = values.slice();
  const im = new Float64Array(n * n);
  const cos = Float64Array.from({ length: n }, (_, i) => Math.cos((2 * Math.PI * i) / n));
  const sin = Float64Array.from({ length: n }, (_, i) => Math.sin((2 * Math.PI * i) / n));
  const run = (start: number, step: number) => {
    for (let i = 0, j = 0; i < n; i++) {
      if (i < j) {
        const [a, b] = [start + i * step, start + j * step];
        [re[a], re[b]] = [re[b], re[a]];
        [im[a], im[b]] = [im[b], im[a]];
      }
      let bit = n >> 1;
      for (; j & bit; bit >>= 1) j ^= bit;
      j ^= bit;
    }
    for (let size = 2; size <= n; size *= 2) {
      const half = size / 2;
      const jump = n / size;
      for (let i = 0; i < n; i += size) {
        for (let k = 0; k < half; k++) {
          const a = start + (i + k) * step;
          const b = start + (i + k + half) * step;
          const [c, s] = [cos[k * jump], -sin[k * jump]];
          const [x, y] = [re[b] * c - im[b] * s, re[b] * s + im[b] * c];
          re[b] = re[a] - x;
          im[b] = im[a] - y;
          re[a] += x;
          im[a] += y;
        }
      }
    }
  };
  for (let j = 0; j < n; j++) run(j * n, 1);
  for (let i = 0; i < n; i++) run(i, n);
  return re.map((v, i) => v * v + im[i] * im[i]);
}

/**
 * Greatest power of one wave over the mean of those round about it (light from one side makes some directions stronger than others), and the
 * greatest ring over its neighbours' median.
 */
function peaks(id: string): { wave: number; ring: number; at: number[] } {
  const n = 512;
  generate(machine, { material: materialById(id), params: {}, seed: 3, width: n, height: n }, START, START + n * n * 4);
  const values = Float64Array.from({ length: n * n }, (_, i) => {
    const q = START + i * 4;
    return 0.2126 * machine.bytes[q] + 0.7152 * machine.bytes[q + 1] + 0.0722 * machine.bytes[q + 2];
  });
  const power = spectrum(values, n);
  const rings = Array.from({ length: n / 2 }, () => ({ sum: 0, count: 0 }));
  const { hypot, round } = Math;
  const at = (i: number, j: number) => power[((j + n) % n) * n + ((i + n) % n)];
  let best = { wave: 0, at: [0, 0] };
  for (let j = -n / 2; j < n / 2; j++)
    for (let i = -n / 2; i < n / 2; i++) {
      const r = round(hypot(i, j));
      if (r < 8 || r >= n / 2) continue;
      rings[r].sum += at(i, j);
      rings[r].count++;
      // Half the plane is the other half's mirror image.
      if (r < 14 || r >= n / 2 - 6 || j < 0) continue;
      let sum = 0;
      let count = 0;
      for (let b = -4; b <= 4; b++)
        for (let a = -4; a <= 4; a++) {
          if (Math.abs(a) < 2 && Math.abs(b) < 2) continue;
          sum += at(i + a, j + b);
          count++;
        }
      const wave = (at(i, j) * count) / sum;
      if (wave > best.wave) best = { wave, at: [i, j] };
    }
  const means = rings.map((r) => (r.count > 0 ? r.sum / r.count : 0));
  let ring = 0;
  for (let r = 14; r < n / 2 - 6; r++) {
    if (r < 20) continue;
    const around = means.slice(r - 6, r + 7).sort((a, b) => a - b);
    ring = Math.max(ring, means[r] / around[6]);
  }
  return { ...best, ring };
}

describe('the radial spectrum', () => {
  // The greatest of a thousand exponentially distributed powers is about 7 to 14 times their mean; a lattice's lines stand far above it.
  it.each(['paper.cold-press', 'paper.hot-press', 'paper.rag', 'skin.grain', 'masonry.plaster'])('%s has no wave of its own', (id) => {
    const { wave, ring, at } = peaks(id);
    if (process.env.SHOW) console.log(id, wave.toFixed(1), at, ring.toFixed(2));
    expect(wave).toBeLessThan(20);
    expect(ring).toBeLessThan(1.5);
  });

  it.each(['cloth.canvas', 'cloth.linen'])('%s has the weave’s, and it is found', (id) => {
    const { wave, ring, at } = peaks(id);
    if (process.env.SHOW) console.log(id, wave.toFixed(1), at, ring.toFixed(2));
    expect(wave).toBeGreaterThan(20);
    expect(ring).toBeLessThan(4);
  });
});
