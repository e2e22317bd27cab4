/** Colours of a picture around the hue circle. */
export interface HueWheel {
  /** Share of the pixels in each sector, from hue 0 (red) on, grey ones left out. */
  share: Float32Array;
  /** Chroma under which nineteen of twenty of a sector's pixels lie, 0..1. */
  reach: Float32Array;
  /** Mean of all pixels: across towards red, up towards yellow-green; (0, 0) for a picture that is grey on the whole. */
  mean: [number, number];
}

const RINGS = 64;
/** Chroma under which a pixel counts as grey. */
const GREY = 0.03;

/** Hue and chroma are polar coordinates of red − (green + blue)/2 and √3/2·(green − blue) (Preucil 1953). */
export function hueWheel(rgba: Uint8Array, sectors = 36, step = 1): HueWheel {
  const counts = new Uint32Array(sectors * RINGS);
  let [sumA, sumO, n] = [0, 0, 0];
  for (let p = 0; p + 3 < rgba.length; p += 4 * step) {
    const [r, g, b] = [rgba[p], rgba[p + 1], rgba[p + 2]];
    const a = (r - (g + b) / 2) / 255;
    const o = (0.8660254 * (g - b)) / 255;
    sumA += a;
    sumO += o;
    n++;
    const chroma = Math.sqrt(a * a + o * o);
    if (chroma < GREY) continue;
    const turn = Math.atan2(o, a) / (2 * Math.PI);
    const sector = Math.round((turn < 0 ? turn + 1 : turn) * sectors) % sectors;
    counts[sector * RINGS + Math.min(RINGS - 1, Math.floor(chroma * RINGS))]++;
  }
  const share = new Float32Array(sectors);
  const reach = new Float32Array(sectors);
  for (let s = 0; s < sectors; s++) {
    const own = counts.subarray(s * RINGS, (s + 1) * RINGS);
    const total = own.reduce((t, v) => t + v, 0);
    share[s] = n > 0 ? total / n : 0;
    let [sum, ring] = [0, -1];
    while (total > 0 && ring < RINGS - 1 && sum < total * 0.95) sum += own[++ring];
    reach[s] = total > 0 ? (ring + 1) / RINGS : 0;
  }
  return { share, reach, mean: n > 0 ? [sumA / n, sumO / n] : [0, 0] };
}
