import { srgbToLab, type Triple } from '../color/srgb';

/** Least distance between two colours of a palette, in CIE Lab (CIE 76). */
const APART = 20;

/**
 * Up to `most` colours that stand for a picture, the weightiest first: means of cells of CIE Lab, larger and more colourful ones first, none
 * close to another. `rgba` is 8 bit; every `step`-th pixel is read. Encoded 0..1.
 */
export function paletteOf(rgba: ArrayLike<number>, most = 6, step = 1): Triple[] {
  const cells = new Map<string, { count: number; sum: Triple }>();
  for (let p = 0; p + 3 < rgba.length; p += 4 * step) {
    if (rgba[p + 3] < 128) continue;
    const rgb: Triple = [rgba[p] / 255, rgba[p + 1] / 255, rgba[p + 2] / 255];
    const [L, a, b] = srgbToLab(rgb);
    const key = [Math.round(L / 14), Math.round(a / 14), Math.round(b / 14)].join();
    const cell = cells.get(key) ?? { count: 0, sum: [0, 0, 0] };
    cell.count++;
    rgb.forEach((v, c) => (cell.sum[c] += v));
    cells.set(key, cell);
  }
  const colours = [...cells.values()].map(({ count, sum }) => {
    const rgb = sum.map((v) => v / count) as Triple;
    const lab = srgbToLab(rgb);
    return { rgb, lab, weight: Math.sqrt(count) * (0.4 + Math.hypot(lab[1], lab[2]) / 30) };
  });
  colours.sort((x, y) => y.weight - x.weight);
  const chosen: typeof colours = [];
  for (const one of colours) {
    if (chosen.length >= most) break;
    if (chosen.every((other) => Math.hypot(...one.lab.map((v, i) => v - other.lab[i])) >= APART)) chosen.push(one);
  }
  return chosen.map((one) => one.rgb);
}

/** Encoded 0..1 to #rrggbb. */
export const toHex = (rgb: readonly number[]): string =>
  `#${rgb
    .slice(0, 3)
    .map((v) =>
      Math.round(255 * Math.min(1, Math.max(0, v)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
