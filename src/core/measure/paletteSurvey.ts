/** OKLab (Ottosson 2020) times 100 of an encoded sRGB colour 0..1: distances in it are roughly those of CIE Lab. */
export function perceived([r, g, b]: readonly number[]): [number, number, number] {
  const linear = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
  const [x, y, z] = [linear(r), linear(g), linear(b)];
  const l = Math.cbrt(0.4122214708 * x + 0.5363325363 * y + 0.0514459929 * z);
  const m = Math.cbrt(0.2119034982 * x + 0.6806995451 * y + 0.1073969566 * z);
  const s = Math.cbrt(0.0883024619 * x + 0.2817188376 * y + 0.6299787005 * z);
  return [
    21.04542553 * l + 79.3617785 * m - 0.40720468 * s,
    197.79984951 * l - 242.8592205 * m + 45.05937099 * s,
    2.59040371 * l + 78.27717662 * m - 80.8675766 * s,
  ];
}

/** How colours are taken from a picture. */
export interface PaletteOrder {
  colours: number;
  /** By colour, or by steps of tone alone. */
  by: 'colour' | 'tone';
  seed: number;
}

/** Hue counts by this much more than lightness. */
const CHROMA = 1.4;
const ROUNDS = 12;
const TRIES = 4;
/** Most pixels that are looked at. */
const SAMPLES = 6000;
/** What stands out from the borders and has detail counts for up to so many times as much as the plainest ground. */
const GROUND = 0.12;

interface Sample {
  at: [number, number, number];
  rgb: [number, number, number];
  weight: number;
}

/**
 * Colours that stand for a picture, dark to light, encoded 0..1: k-means (Lloyd 1982; seeded as by Arthur & Vassilvitskii 2007) over a sample of its pixels, in
 * which the middle and what differs from the borders counts for more, or a large sky would take all colours.
 *
 * @param rgba - 8 bit.
 */
export function takePalette(rgba: ArrayLike<number>, width: number, height: number, { colours, by, seed }: PaletteOrder): number[] {
  const samples = samplesOf(rgba, width, height, by);
  let state = (seed * 2654435761) >>> 0 || 1;
  const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296;
  let best: { error: number; centres: Sample['at'][]; labels: Int32Array } | null = null;
  for (let i = 0; i < TRIES; i++) {
    const found = cluster(samples, colours, random);
    if (!best || found.error < best.error) best = found;
  }
  const sums = Array.from({ length: colours }, () => [0, 0, 0, 0]);
  samples.forEach(({ rgb, weight }, i) => {
    const sum = sums[best!.labels[i]];
    rgb.forEach((v, c) => (sum[c] += v * weight));
    sum[3] += weight;
  });
  const rgb = sums.map((s) => (s[3] > 0 ? s.slice(0, 3).map((v) => v / s[3]) : [0, 0, 0]));
  return rgb.sort((x, y) => luma(x) - luma(y)).flat();
}

const luma = ([r, g, b]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
const distance = (a: readonly number[], b: readonly number[]) => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2;

function samplesOf(rgba: ArrayLike<number>, width: number, height: number, by: PaletteOrder['by']): Sample[] {
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / SAMPLES)));
  const rgbAt = (x: number, y: number): Sample['rgb'] => {
    const p = (Math.min(height - 1, y) * width + Math.min(width - 1, x)) * 4;
    return [rgba[p] / 255, rgba[p + 1] / 255, rgba[p + 2] / 255];
  };
  const space = (rgb: Sample['rgb']): Sample['at'] => {
    const [l, a, b] = perceived(rgb);
    return by === 'tone' ? [l, 0, 0] : [l, CHROMA * a, CHROMA * b];
  };
  const borders = [
    [0.05, 0.05],
    [0.95, 0.05],
    [0.05, 0.95],
    [0.95, 0.95],
  ].map(([x, y]) => space(rgbAt(Math.floor(x * width), Math.floor(y * height))));
  const samples: Sample[] = [];
  for (let y = 0; y < height; y += step) {
    for (let x = 0; x < width; x += step) {
      const rgb = rgbAt(x, y);
      const at = space(rgb);
      const apart = Math.sqrt(Math.min(...borders.map((b) => distance(at, b)))) / 25;
      const detail = Math.sqrt(distance(at, space(rgbAt(x + step, y + step)))) / 8;
      const middle = Math.exp(-3 * ((x / width - 0.5) ** 2 + (y / height - 0.45) ** 2));
      samples.push({ at, rgb, weight: GROUND + Math.min(1, (apart + detail) * (0.4 + 0.6 * middle)) });
    }
  }
  return samples;
}

function cluster(samples: readonly Sample[], k: number, random: () => number) {
  const centres: Sample['at'][] = [samples[Math.floor(random() * samples.length)].at];
  const gap = Float64Array.from(samples, ({ at }) => distance(at, centres[0]));
  while (centres.length < k) {
    const total = samples.reduce((sum, { weight }, i) => sum + weight * gap[i], 0);
    let left = random() * total;
    const chosen = samples.findIndex(({ weight }, i) => (left -= weight * gap[i]) <= 0);
    const { at } = samples[Math.max(0, chosen)];
    centres.push(at);
    samples.forEach((s, i) => (gap[i] = Math.min(gap[i], distance(s.at, at))));
  }
  const labels = new Int32Array(samples.length);
  let error = 0;
  for (let round = 0; round < ROUNDS; round++) {
    error = 0;
    const sums = centres.map(() => [0, 0, 0, 0]);
    samples.forEach(({ at, weight }, i) => {
      let nearest = Infinity;
      for (let c = 0; c < k; c++) {
        const d = distance(at, centres[c]);
        if (d < nearest) [nearest, labels[i]] = [d, c];
      }
      error += weight * nearest;
      const sum = sums[labels[i]];
      for (let c = 0; c < 3; c++) sum[c] += at[c] * weight;
      sum[3] += weight;
    });
    sums.forEach((s, c) => s[3] > 0 && (centres[c] = [s[0] / s[3], s[1] / s[3], s[2] / s[3]]));
  }
  return { error, centres, labels };
}
