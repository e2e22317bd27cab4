import { toEncoded } from '../../src/core/color/srgb';
import { Random } from '../../src/core/materials/random';
import { makeNoise, makeSolid } from './noise';

const clamp = (x: number, lo = 0, hi = 1) => Math.min(hi, Math.max(lo, x));
const smooth = (a: number, b: number, x: number) => {
  const t = clamp((x - a) / (b - a));
  return t * t * (3 - 2 * t);
};

/** Broken cumulus over a clear evening sky, seen in perspective: a layer of cloud marched along each line of sight, lit from the right. */
export function drawSky(width: number, height: number): { pixels: Uint8Array; width: number; height: number } {
  const shape = makeNoise(11);
  const detail = makeSolid(29);
  const random = new Random(3);
  const pixels = new Uint8Array(width * height * 3);
  const base = 1.0;
  const top = 1.55;
  const light = [0.75, 0.28, 0.6];
  const density = (x: number, y: number, z: number) => {
    const h = (y - base) / (top - base);
    // Flat base, billowed tops: the cover needed grows with height.
    if (h < 0 || h > 1) return 0;
    const wide = shape(x * 0.62 + 3, z * 0.62, 5, 0.55) + 0.3 * shape(x * 0.16, z * 0.16 + 40, 3);
    if (wide < 0.02) return 0;
    const erode = (0.5 + 0.9 * detail(x * 3.1, y * 3.4, z * 3.1, 5, 0.6)) * 0.75;
    const need = 0.02 + 0.42 * h ** 1.5 + 0.25 * smooth(0.15, 0, h);
    return clamp((wide - erode * (0.4 + 0.6 * h) - need) * 5.5, 0, 1);
  };
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const u = (i + 0.5 - width / 2) / width;
      const v = (height * 0.97 - j) / width;
      const d = [u * 1.25, v * 1.05 + 0.045, 1];
      const clear = clamp(v / 0.62);
      let r = 0.56 - 0.38 * clear ** 0.7;
      let g = 0.58 - 0.26 * clear ** 0.8;
      let b = 0.62 - 0.08 * clear;
      // Warm haze low down, towards the light.
      const glow = Math.exp(-clear * 6) * (0.5 + 0.8 * (u + 0.5));
      r += 0.3 * glow;
      g += 0.16 * glow;
      b += 0.02 * glow;
      let through = 1;
      let cr = 0;
      let cg = 0;
      let cb = 0;
      const t0 = base / d[1];
      const t1 = Math.min(top / d[1], t0 + 9);
      const far = Math.exp(-Math.max(0, t0 - 2) * 0.075);
      const steps = 28;
      const jitter = random.next();
      if (t0 < 30) {
        for (let s = 0; s < steps && through > 0.02; s++) {
          const t = t0 + ((s + jitter) / steps) * (t1 - t0);
          const [x, y, z] = [d[0] * t + 7, d[1] * t, d[2] * t];
          const rho = density(x, y, z);
          if (rho <= 0.01) continue;
          let shade = 0;
          for (let k = 1; k <= 3; k++) shade += density(x + light[0] * 0.1 * k, y + light[1] * 0.1 * k, z + light[2] * 0.1 * k * 0.4);
          const lit = Math.exp(-shade * 0.85);
          const h = clamp((y - base) / (top - base));
          const a = 1 - Math.exp(-rho * 1.9 * ((t1 - t0) / steps) * 4.2);
          const sun = 0.95 * lit;
          const sky = 0.17 + 0.2 * h;
          cr += through * a * (sun * 1.0 + sky * 0.86);
          cg += through * a * (sun * 0.92 + sky * 0.93);
          cb += through * a * (sun * 0.8 + sky * 1.1);
          through *= 1 - a;
        }
      }
      const keep = 1 - (1 - through) * far * smooth(0, 0.05, v + 0.03);
      const covered = 1 - through || 1;
      r = r * keep + (cr / covered) * (1 - keep);
      g = g * keep + (cg / covered) * (1 - keep);
      b = b * keep + (cb / covered) * (1 - keep);
      const fall = 1 - 0.18 * (u * u * 2.2 + (j / height - 0.5) ** 2);
      const grain = (random.next() + random.next() - 1) * 0.012;
      const p = (j * width + i) * 3;
      [r, g, b].forEach((c, k) => {
        pixels[p + k] = Math.round(255 * clamp(toEncoded(clamp(c * fall * 0.86)) + grain));
      });
    }
  }
  return { pixels, width, height };
}
