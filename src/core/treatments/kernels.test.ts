import { numbers, testBench } from '@/testing/machine';

const { machine, scratch } = testBench(64);
const next = numbers(31);
const colours = Array.from({ length: 501 }, () => [next(), next(), next()]);
const clamp = (v: number) => Math.min(1, Math.max(0, v));
const luma = ([r, g, b]: number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
const rise = (x: number, a: number, b: number) => {
  const t = clamp((x - a) / (b - a));
  return t * t * (3 - 2 * t);
};

/** The colours through a kernel that works on a tile. */
function through(run: (ptr: number, stride: number, count: number) => void): number[][] {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: colours.length, height: 1 });
  colours.forEach((rgb, i) => rgb.forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + i] = v)));
  run(tile.ptr, tile.stride, tile.count);
  return colours.map((_, i) => [0, 1, 2].map((c) => machine.floats[(tile.ptr + c * tile.stride) / 4 + i]));
}
const same = (out: number[][], want: (rgb: number[]) => number[], within = 1e-4) =>
  out.forEach((rgb, i) => want(colours[i]).forEach((v, c) => expect(Math.abs(rgb[c] - v)).toBeLessThan(within)));

// Formulas written out from the definitions in the treatments' docstrings, one colour at a time.
describe('kernels of colour against their formulas', () => {
  it('colour by tone', () => {
    const s = [0.1, -0.05, 0.12] as const;
    const m = [0.02, 0.08, -0.1] as const;
    const h = [-0.12, 0.03, 0.06] as const;
    const out = through((tile, stride, count) => machine.kernels.balanceRanges({ tile, stride, count, shadow: s, middle: m, highlight: h }));
    same(out, (rgb) => {
      const y = luma(rgb);
      const [ws, wh] = [1 - rise(y, 0.05, 0.55), rise(y, 0.45, 0.95)];
      const moved = rgb.map((v, c) => v + ws * s[c] + (1 - ws - wh) * m[c] + wh * h[c]);
      const back = y - luma(moved);
      return moved.map((v) => clamp(v + back));
    });
  });
  it('one hue turned, strengthened and lightened', () => {
    const [hue, turn] = [(40 * Math.PI) / 180, (25 * Math.PI) / 180];
    const [inner, outer, saturation, lightness] = [Math.cos(0.3), Math.cos(0.9), 0.4, 0.3];
    const out = through((p, stride, n) =>
      machine.kernels.hueRange({
        tile: p,
        stride,
        count: n,
        cos: Math.cos(hue),
        sin: Math.sin(hue),
        inner,
        outer,
        turnCos: Math.cos(turn),
        turnSin: Math.sin(turn),
        saturation,
        lightness,
      }),
    );
    same(out, ([r, g, b]) => {
      const [a, o] = [r - (g + b) / 2, (Math.sqrt(3) / 2) * (g - b)];
      const chroma = Math.hypot(a, o);
      const w = rise(Math.cos(Math.atan2(o, a) - hue), outer, inner) * rise(chroma, 0.01, 0.08);
      const angle = Math.atan2(o, a) + turn;
      const strong = chroma * (1 + saturation);
      const [na, no] = [a + w * (strong * Math.cos(angle) - a), o + w * (strong * Math.sin(angle) - o)];
      const flat = [(2 / 3) * na, -na / 3 + no / Math.sqrt(3), -na / 3 - no / Math.sqrt(3)];
      const y = luma([r, g, b]);
      const up = y + w * lightness * y * (1 - y) - luma(flat);
      return flat.map((v) => clamp(v + up));
    });
  });
  it('a table with straight lines between its values', () => {
    const table = [0, 0.3, 0.35, 0.9, 1];
    const out = through((p, _stride, n) => {
      const at = scratch.take(table.length * 4);
      machine.floats.set(table, at / 4);
      machine.kernels.applyTable(p, n, at, table.length);
    });
    out.forEach(([r], i) => {
      const x = colours[i][0] * 4;
      const k = Math.min(3, Math.floor(x));
      expect(Math.abs(r - (table[k] + (table[k + 1] - table[k]) * (x - k)))).toBeLessThan(1e-5);
    });
  });
  it('luma and colour differences, there and back', () => {
    const out = through((p, stride, n) => {
      const [y, b, r] = [scratch.plane(n), scratch.plane(n), scratch.plane(n)];
      machine.kernels.splitLuma(p, stride, n, y, b, r);
      colours.forEach((rgb, i) => {
        expect(machine.floats[y / 4 + i]).toBeCloseTo(luma(rgb), 5);
        expect(machine.floats[b / 4 + i]).toBeCloseTo(rgb[2] - luma(rgb), 5);
        expect(machine.floats[r / 4 + i]).toBeCloseTo(rgb[0] - luma(rgb), 5);
      });
      machine.kernels.joinLuma(p, stride, n, y, b, r);
    });
    same(out, (rgb) => rgb, 2e-6);
  });
  it('what is clipped is painted: white before black', () => {
    const marks = [
      [1, 0.4, 0.5],
      [0, 0.4, 0.5],
      [1, 0, 0.5],
      [0.5, 0.4, 0.5],
    ];
    scratch.reset();
    const tile = scratch.tile({ x: 0, y: 0, width: 4, height: 1 });
    marks.forEach((rgb, i) => rgb.forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + i] = v)));
    machine.kernels.markClipped({ tile: tile.ptr, stride: tile.stride, count: tile.count, white: [0.9, 0.1, 0.1], black: [0.1, 0.2, 0.9] });
    const at = (i: number) => [0, 1, 2].map((c) => Math.round(machine.floats[(tile.ptr + c * tile.stride) / 4 + i] * 10) / 10);
    expect([0, 1, 2, 3].map(at)).toEqual([
      [0.9, 0.1, 0.1],
      [0.1, 0.2, 0.9],
      [0.9, 0.1, 0.1],
      [0.5, 0.4, 0.5],
    ]);
  });
});

describe('kernels of noise against their formulas', () => {
  it('Lee’s estimate keeps what varies and calms what does not', () => {
    scratch.reset();
    const n = 64;
    const [plane, mean, squared] = [scratch.plane(n), scratch.plane(n), scratch.plane(n)];
    const v = Array.from({ length: n }, () => [next(), next(), next() * 0.2]);
    v.forEach(([p, m, variance], i) => {
      machine.floats[plane / 4 + i] = p;
      machine.floats[mean / 4 + i] = m;
      machine.floats[squared / 4 + i] = m * m + variance;
    });
    machine.kernels.calm(plane, mean, squared, n, 0.01);
    v.forEach(([p, m, variance], i) => expect(machine.floats[plane / 4 + i]).toBeCloseTo(m + (variance / (variance + 0.01)) * (p - m), 4));
  });
  it('colour is drawn to its mean, little across a large step', () => {
    scratch.reset();
    const [plane, mean] = [scratch.plane(8, 0.5), scratch.plane(8)];
    const means = [0.5, 0.52, 0.6, 1];
    means.forEach((m, i) => (machine.floats[mean / 4 + i] = m));
    machine.kernels.drawTo(plane, mean, 8, 0.8, 0.1);
    means.forEach((m, i) => expect(machine.floats[plane / 4 + i]).toBeCloseTo(0.5 + (0.8 * (m - 0.5)) / (1 + ((m - 0.5) / 0.1) ** 2), 5));
  });
});
