import { toLinear } from '../color/srgb';

/** Counts of 256 levels of luma (Rec. 709 of encoded values), red, green and blue, and the share of clipped pixels. */
export interface Histogram {
  luma: Uint32Array;
  red: Uint32Array;
  green: Uint32Array;
  blue: Uint32Array;
  pixels: number;
  /** Pixels with a channel at 0, and at 255. */
  black: number;
  white: number;
}

/** Counts RGBA8 pixels, every `step`-th of them. A measure at preview size, never on the way to the screen. */
export function histogramOf(rgba: Uint8Array, step = 1): Histogram {
  const h: Histogram = {
    luma: new Uint32Array(256),
    red: new Uint32Array(256),
    green: new Uint32Array(256),
    blue: new Uint32Array(256),
    pixels: 0,
    black: 0,
    white: 0,
  };
  for (let i = 0; i + 3 < rgba.length; i += 4 * step) {
    const [r, g, b] = [rgba[i], rgba[i + 1], rgba[i + 2]];
    h.red[r]++;
    h.green[g]++;
    h.blue[b]++;
    h.luma[Math.min(255, Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b))]++;
    if (r === 0 || g === 0 || b === 0) h.black++;
    if (r === 255 || g === 255 || b === 255) h.white++;
    h.pixels++;
  }
  return h;
}

/** Level below which a share of the counts lies. */
export function quantile(counts: Uint32Array, share: number): number {
  const total = counts.reduce((s, v) => s + v, 0);
  let sum = 0;
  for (let v = 0; v < counts.length; v++) {
    sum += counts[v];
    if (sum >= total * share && sum > 0) return v;
  }
  return counts.length - 1;
}

const ranges = [
  { name: 'shadows', from: 0.02, to: 0.3 },
  { name: 'middle tones', from: 0.35, to: 0.65 },
  { name: 'highlights', from: 0.7, to: 0.98 },
] as const;

/** Mean level of each channel over the three ranges of its own pixels, dark to light. */
export function rangeLevels(h: Histogram): { name: string; red: number; green: number; blue: number }[] {
  const level = (counts: Uint32Array, from: number, to: number) => {
    let sum = 0;
    for (let k = 1; k <= 8; k++) sum += quantile(counts, from + ((to - from) * k) / 9);
    return sum / 8;
  };
  return ranges.map(({ name, from, to }) => ({ name, red: level(h.red, from, to), green: level(h.green, from, to), blue: level(h.blue, from, to) }));
}

const LEAST_CAST = 7;

/** The channel that stands clearly apart from the other two, and the range in which it does so most; null when none does. */
export function castOf(h: Histogram): { channel: 'red' | 'green' | 'blue'; range: string; above: boolean } | null {
  const channels = ['red', 'green', 'blue'] as const;
  let most = LEAST_CAST;
  let cast: ReturnType<typeof castOf> = null;
  for (const levels of rangeLevels(h)) {
    for (const channel of channels) {
      const [one, two] = channels.filter((c) => c !== channel).map((c) => levels[c]);
      const gap = levels[channel] - Math.max(one, two);
      const below = Math.min(one, two) - levels[channel];
      // Said only where the other two agree among themselves.
      const together = Math.abs(one - two) < Math.max(gap, below) * 0.9;
      if (together && Math.max(gap, below) > most) {
        most = Math.max(gap, below);
        cast = { channel, range: levels.name, above: gap > below };
      }
    }
  }
  return cast;
}

/** A plain sentence about a cast; null when there is none. */
export function castSentence(h: Histogram): string | null {
  const cast = castOf(h);
  if (!cast) return null;
  const others = ['red', 'green', 'blue'].filter((c) => c !== cast.channel).join(' and ');
  const name = cast.channel[0].toUpperCase() + cast.channel.slice(1);
  return `${name} sits ${cast.above ? 'above' : 'below'} ${others} in the ${cast.range}.`;
}

/** Gains in linear light under which the mean of the picture becomes grey (Buchsbaum 1980), clipped pixels left out. */
export function greyWorld(rgba: Uint8Array): [number, number, number] {
  const linear = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));
  const sum = [0, 0, 0];
  let n = 0;
  for (let i = 0; i + 3 < rgba.length; i += 4) {
    const [r, g, b] = [rgba[i], rgba[i + 1], rgba[i + 2]];
    if (Math.max(r, g, b) >= 254 || Math.min(r, g, b) <= 1) continue;
    sum[0] += linear[r];
    sum[1] += linear[g];
    sum[2] += linear[b];
    n++;
  }
  if (n === 0) return [1, 1, 1];
  const y = 0.2126 * sum[0] + 0.7152 * sum[1] + 0.0722 * sum[2];
  return sum.map((v) => Math.min(4, Math.max(0.25, y / Math.max(v, 1e-9)))) as [number, number, number];
}
