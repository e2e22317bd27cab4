/** A place on a face: its unit normal (right, down, towards the viewer), how bright it is in linear light, and whether it lies above the nose's tip. */
export interface LightSample {
  normal: readonly [number, number, number];
  luminance: number;
  upper: boolean;
}

/** A distant light: degrees to the right of the viewer, degrees above, and how sure that is, 0..1. */
export interface Light {
  azimuth: number;
  elevation: number;
  confidence: number;
}

const DEGREE = Math.PI / 180;
const COARSE = 15;
const FINER = [7, 3.5, 1.75];
/** A face lit from behind its plane shows nothing of the light. */
const WIDEST = 90;
/** Two fits that differ by more than this mean that a beard or a shadow has misled the one of the whole face. */
const APART = 25;
/** Least samples that say anything. */
const FEWEST = 40;

/** The way to the light: right, down, towards the viewer. */
export const wayTo = ({ azimuth, elevation }: Pick<Light, 'azimuth' | 'elevation'>): [number, number, number] => {
  const [a, e] = [azimuth * DEGREE, elevation * DEGREE];
  return [Math.sin(a) * Math.cos(e), -Math.sin(e), Math.cos(a) * Math.cos(e)];
};

const smoothstep = (from: number, to: number, v: number) => {
  const t = Math.min(1, Math.max(0, (v - from) / (to - from)));
  return t * t * (3 - 2 * t);
};
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Where the main light on a face comes from; null where there are too few samples. By the upper half alone if the whole says something else. */
export function fitLight(samples: readonly LightSample[]): Light | null {
  const whole = fitOne(samples);
  const upper = fitOne(samples.filter((sample) => sample.upper));
  if (!whole || !upper) return whole;
  const [a, b] = [wayTo(whole), wayTo(upper)];
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2] < Math.cos(APART * DEGREE) ? upper : whole;
}

/**
 * Fits luminance = a + b · max(0, normal · light), a and b at least 0, by a search over directions; each is judged by the mean error, of which a pixel has
 * a limited part, so that cast shadows and highlights count little. (Fits by spherical harmonics were up to 65° off: a face shows half of the sphere.)
 */
function fitOne(samples: readonly LightSample[]): Light | null {
  if (samples.length < FEWEST) return null;
  const most = (0.75 * samples.reduce((sum, s) => sum + s.luminance, 0)) / samples.length;
  const costAt = (azimuth: number, elevation: number) => costOf(samples, wayTo({ azimuth, elevation }), most);
  const coarse: { azimuth: number; elevation: number; cost: number }[] = [];
  for (let azimuth = -105; azimuth <= 105; azimuth += COARSE)
    for (let elevation = -45; elevation <= 75; elevation += COARSE) coarse.push({ azimuth, elevation, cost: costAt(azimuth, elevation) });
  let best = coarse.reduce((a, b) => (b.cost < a.cost ? b : a));
  const least = best.cost;
  for (const step of FINER) {
    const { azimuth, elevation } = best;
    for (const da of [-step, 0, step])
      for (const de of [-step, 0, step]) {
        const cost = costAt(azimuth + da, elevation + de);
        if (cost < best.cost) best = { azimuth: azimuth + da, elevation: elevation + de, cost };
      }
  }
  const middle = median(samples.map((s) => s.luminance));
  const flatCost = samples.reduce((sum, s) => sum + Math.min(Math.abs(s.luminance - middle), most), 0) / samples.length;
  const gain = 1 - best.cost / Math.max(1e-9, flatCost);
  const flat = coarse.filter(({ cost }) => cost < 1.15 * least).length / coarse.length;
  return {
    azimuth: Math.min(WIDEST, Math.max(-WIDEST, best.azimuth)),
    elevation: best.elevation,
    confidence: smoothstep(0.1, 0.35, gain) * (1 - smoothstep(0.15, 0.5, flat)),
  };
}

/** Mean error of the best line through (max(0, normal · light), luminance), after three fits that trust outliers less (Huber). */
function costOf(samples: readonly LightSample[], [lx, ly, lz]: readonly [number, number, number], most: number): number {
  const facing = samples.map(({ normal: [x, y, z] }) => Math.max(0, x * lx + y * ly + z * lz));
  let weights: number[] | null = null;
  let residuals: number[] = [];
  for (let round = 0; round < 3; round++) {
    const [a, b] = lineThrough(samples, facing, weights);
    residuals = samples.map(({ luminance }, i) => luminance - a - b * facing[i]);
    const limit = Math.max(1e-6, 1.3 * 1.4826 * median(residuals.map(Math.abs)));
    weights = residuals.map((r) => Math.min(1, limit / Math.max(1e-9, Math.abs(r))));
  }
  return residuals.reduce((sum, r) => sum + Math.min(Math.abs(r), most), 0) / residuals.length;
}

function lineThrough(samples: readonly LightSample[], facing: readonly number[], weights: readonly number[] | null): [number, number] {
  let [w, x, y, xx, xy] = [0, 0, 0, 0, 0];
  samples.forEach(({ luminance }, i) => {
    const k = weights ? weights[i] : 1;
    w += k;
    x += k * facing[i];
    y += k * luminance;
    xx += k * facing[i] * facing[i];
    xy += k * facing[i] * luminance;
  });
  const spread = xx - (x * x) / w;
  const slope = spread > 1e-9 ? Math.max(0, (xy - (x * y) / w) / spread) : 0;
  const level = (y - slope * x) / w;
  // Light that is taken away is none: a line through nothing instead.
  return level >= 0 ? [level, slope] : [0, xx > 1e-9 ? Math.max(0, xy / xx) : 0];
}

/** A light less sure than this is not to be relied on; this one stands in for it. */
export const SURE_LIGHT = 0.3;
export const EVEN: Light = { azimuth: 0, elevation: 30, confidence: 0 };

/**
 * A light as the controls of relief name it: degrees clockwise from the top, and its height over the picture. `turned` takes a direction on the file to
 * the same one on the piece, whatever its length.
 */
export function asRelief(
  light: Light,
  turned: (x: number, y: number) => readonly [number, number] = (x, y) => [x, y],
): { direction: number; elevation: number } {
  const [x, y, z] = wayTo(light);
  const [across, down] = turned(x, y);
  const direction = (Math.atan2(across, -down) / DEGREE + 360) % 360;
  return { direction: Math.round(direction), elevation: Math.round(Math.min(85, Math.max(5, Math.asin(z) / DEGREE))) };
}
