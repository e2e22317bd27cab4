import { toEncoded, toLinear } from '../../src/core/color/srgb';
import { Random } from '../../src/core/materials/random';
import { makeNoise } from './noise';

interface Made {
  pixels: Uint8Array;
  width: number;
  height: number;
}
type Maker = (id: string, seed: number, width: number, height?: number, params?: Record<string, unknown>) => Promise<Made>;
type Colour = [number, number, number];

const clamp = (x: number, lo = 0, hi = 1) => Math.min(hi, Math.max(lo, x));
const smooth = (a: number, b: number, x: number) => {
  const t = clamp((x - a) / (b - a));
  return t * t * (3 - 2 * t);
};
const linear = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** Bilinear, repeating; linear light. x, y in 0..1 of the material. */
function read(m: Made, x: number, y: number, out: Colour): Colour {
  const u = (x - Math.floor(x)) * m.width - 0.5;
  const v = (y - Math.floor(y)) * m.height - 0.5;
  const i = Math.floor(u);
  const j = Math.floor(v);
  const [fx, fy] = [u - i, v - j];
  const at = (a: number, b: number, c: number) =>
    linear[m.pixels[((((b % m.height) + m.height) % m.height) * m.width + (((a % m.width) + m.width) % m.width)) * 4 + c]];
  for (let c = 0; c < 3; c++)
    out[c] = (at(i, j, c) * (1 - fx) + at(i + 1, j, c) * fx) * (1 - fy) + (at(i, j + 1, c) * (1 - fx) + at(i + 1, j + 1, c) * fx) * fy;
  return out;
}

/** One thing on the wall: a rectangle in metres, how far it stands out, and its material. */
interface Thing {
  x: number;
  y: number;
  w: number;
  h: number;
  turn: number;
  out: number;
  made: Made;
  size: number;
  tint: Colour;
}

/**
 * A wall of brick in metres, seen at an angle: 4.6 m of it, with a noticeboard and papers that throw shadows, damp at the foot, light from
 * the upper left that falls off, a focus that softens towards the far end, and the noise of a sensor.
 */
export async function drawWall(material: Maker, width: number, height: number): Promise<Made> {
  const brick = await material('masonry.brick', 9, 2048);
  const stone = await material('masonry.plaster', 4, 1024);
  const boards = await material('wood.weathered', 6, 1024, 1024, { boards: 3, greying: 0.5 });
  const cork = await material('cloth.linen', 8, 1024, 1024, { lightness: 40 });
  const sheet = await material('paper.cold-press', 2, 1024, 1024, { warmth: 1.6 });
  const old = await material('paper.aged', 14, 752, 1024, { stains: 3 });
  const noise = makeNoise(5);
  const random = new Random(17);
  const plain: Colour = [1, 1, 1];
  const things: Thing[] = [
    { x: 1.28, y: 0.92, w: 1.36, h: 0.94, turn: 0, out: 0.05, made: boards, size: 1.4, tint: [0.5, 0.42, 0.34] },
    { x: 1.35, y: 0.99, w: 1.22, h: 0.8, turn: 0, out: 0.035, made: cork, size: 0.9, tint: [1.0, 0.8, 0.56] },
    { x: 1.42, y: 1.05, w: 0.34, h: 0.46, turn: -0.02, out: 0.041, made: old, size: 0, tint: plain },
    { x: 1.84, y: 1.08, w: 0.3, h: 0.22, turn: 0.03, out: 0.04, made: sheet, size: 0.4, tint: [0.92, 0.9, 0.82] },
    { x: 1.86, y: 1.36, w: 0.26, h: 0.36, turn: -0.05, out: 0.042, made: sheet, size: 0.4, tint: [0.72, 0.8, 0.82] },
    { x: 2.2, y: 1.12, w: 0.31, h: 0.44, turn: 0.045, out: 0.041, made: old, size: 0, tint: [0.95, 0.96, 0.98] },
  ];
  /** Position on a thing, from its own upper left; null outside. */
  const on = (t: Thing, x: number, y: number): [number, number] | null => {
    const cx = x - t.x - t.w / 2;
    const cy = y - t.y - t.h / 2;
    const u = cx * Math.cos(t.turn) + cy * Math.sin(t.turn) + t.w / 2;
    const v = cy * Math.cos(t.turn) - cx * Math.sin(t.turn) + t.h / 2;
    return u >= 0 && v >= 0 && u <= t.w && v <= t.h ? [u, v] : null;
  };
  const c: Colour = [0, 0, 0];
  const colourAt = (x: number, y: number, out: Colour): void => {
    let top: Thing | null = null;
    let place: [number, number] = [0, 0];
    for (const t of things) {
      const p = on(t, x, y);
      if (p) [top, place] = [t, p];
    }
    const level = top?.out ?? 0;
    if (top) {
      if (top.size === 0) read(top.made, place[0] / top.w, place[1] / top.h, out);
      else read(top.made, place[0] / top.size, place[1] / top.size, out);
      for (let k = 0; k < 3; k++) out[k] *= top.tint[k];
      written(top, place, out);
    } else if (y > 2.34) {
      // The paving stone at the foot.
      read(stone, x / 1.6, y / 1.6, out);
      const joint = Math.abs(((x + 0.1 * noise(x, 3)) % 0.9) - 0.45) > 0.443 || y < 2.355;
      for (let k = 0; k < 3; k++) out[k] *= joint ? 0.3 : 0.72;
    } else read(brick, x / 1.15, y / 1.15, out);
    // Shadows: what stands out farther, seen along the light.
    let shade = 1;
    for (const t of things) {
      if (t.out <= level + 0.0005) continue;
      const gap = t.out - level;
      let hit = 0;
      for (let k = 0; k < 9; k++) {
        const soft = 0.25 * gap + 0.002;
        if (on(t, x - gap * 0.9 + ((k % 3) - 1) * soft, y - gap * 0.75 + (Math.floor(k / 3) - 1) * soft)) hit++;
      }
      shade *= 1 - 0.62 * (hit / 9);
    }
    litter(x, y, out, noise);
    const damp = smooth(1.75, 2.35, y + 0.18 * noise(x * 1.3, y * 0.8));
    const soot = 0.86 + 0.2 * noise(x * 0.55 + 9, y * 0.5);
    const warm = (1.16 - 0.15 * x) * (1.1 - 0.12 * y) * shade * (1 - 0.42 * damp) * soot;
    const green = 0.5 * damp * smooth(0.05, 0.5, noise(x * 2.3, y * 2.1 + 30, 5));
    out[0] *= warm * 1.05 * (1 - 0.4 * green);
    out[1] *= warm * (1 - 0.12 * green);
    out[2] *= warm * 0.93 * (1 - 0.45 * green);
  };
  const pixels = new Uint8Array(width * height * 3);
  // A camera at the height of a chest, 2.35 m before the wall, turned to the right by 24°, up by 7°, and held a little askew.
  const [turn, focal, up, askew] = [0.42, 1.05, 0.12, 0.012];
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const sum: Colour = [0, 0, 0];
      let weight = 0;
      const sample = (di: number, dj: number) => {
        const a = (i + di + 0.5 - width / 2) / width / focal;
        const b = (j + dj + 0.5 - height / 2) / width / focal;
        const u = a * Math.cos(askew) - b * Math.sin(askew);
        const v = a * Math.sin(askew) + b * Math.cos(askew);
        const ahead = Math.cos(up) + v * Math.sin(up);
        const down = v * Math.cos(up) - Math.sin(up);
        const dx = Math.sin(turn) * ahead + u * Math.cos(turn);
        const dz = Math.cos(turn) * ahead - u * Math.sin(turn);
        const t = 2.35 / dz;
        colourAt(0.95 + dx * t, 1.76 + down * t, c);
        for (let k = 0; k < 3; k++) sum[k] += c[k];
        weight++;
      };
      const u0 = (i - width / 2) / width / focal;
      const distance = 2.35 / (Math.cos(turn) - u0 * Math.sin(turn));
      const blur = 0.4 + 2.4 * smooth(2.7, 4.2, distance) + 0.6 * smooth(2.3, 2.0, distance);
      for (let k = 0; k < 8; k++) {
        const a = k * 2.399;
        const r = blur * Math.sqrt((k + 0.5) / 8);
        sample(Math.cos(a) * r, Math.sin(a) * r);
      }
      const fall = 1 - 0.42 * ((i / width - 0.5) ** 2 * 1.3 + (j / height - 0.5) ** 2);
      const p = (j * width + i) * 3;
      for (let k = 0; k < 3; k++) {
        const value = toEncoded(clamp((sum[k] / weight) * fall * 1.25));
        pixels[p + k] = Math.round(255 * clamp(value * 0.985 + 0.008 + (random.next() + random.next() - 1) * 0.016));
      }
    }
  }
  return { pixels, width, height };
}

/** A crumpled wrapper that the wind has pressed against the wall. */
function litter(x: number, y: number, out: Colour, noise: (x: number, y: number, octaves?: number) => number): void {
  const [u, v] = [x - 2.82, y - 1.62];
  const turn = Math.atan2(v, u);
  const reach = 0.05 + 0.014 * Math.sin(3 * turn + 0.6) + 0.008 * Math.sin(7 * turn) + 0.012 * noise(x * 40, y * 40);
  const r = Math.hypot(u, v * 1.2);
  if (r > reach + 0.012) return;
  // Its shadow first, then foil with folds that catch the light.
  if (Math.hypot(u - 0.006, (v - 0.007) * 1.2) < reach + 0.008) for (let k = 0; k < 3; k++) out[k] *= 0.55;
  if (r > reach) return;
  const fold = noise(x * 60, y * 60 + 7, 3);
  const glint = smooth(0.15, 0.5, noise(x * 95 + 3, y * 70, 2));
  const band = Math.sin((u * 0.8 + v) * 190 + 4 * fold) > 0.2;
  const paint: Colour = band ? [0.05, 0.22, 0.5] : [0.75, 0.78, 0.8];
  for (let k = 0; k < 3; k++) out[k] = paint[k] * (0.75 + 0.5 * fold) + 0.5 * glint;
}

/** Lines of handwriting too small to read, and a pin. */
function written(t: Thing, [u, v]: [number, number], out: Colour): void {
  if (t.out < 0.0399 || t.out > 0.045) return;
  const line = v / 0.026;
  const row = Math.floor(line);
  const inside = u > 0.035 && u < t.w - 0.03 - 0.08 * ((row * 37) % 5 === 0 ? 1 : ((row * 13) % 7) / 9) && v > 0.05 && v < t.h - 0.05;
  if (inside && row % 7 !== 6) {
    const wave = 0.5 + 0.2 * Math.sin(u * 520 + row * 2.1) + 0.13 * Math.sin(u * 1210 + row * 5) + 0.1 * Math.sin(u * 173 + row);
    const gap = Math.sin(u * 96 + row * 9.1) + Math.sin(u * 61 + row * 3.3) > 1.15;
    const ink = gap ? 0 : smooth(0.16, 0.05, Math.abs(line - row - wave));
    for (let k = 0; k < 3; k++) out[k] *= 1 - 0.68 * ink * (k === 2 ? 0.85 : 1);
  }
  const pin = Math.hypot(u - t.w / 2, v - 0.02);
  if (pin < 0.009) [out[0], out[1], out[2]] = [0.42 - 20 * pin, 0.1, 0.09];
}
