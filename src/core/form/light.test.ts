import { Random } from '../materials/random';
import { asRelief, fitLight, wayTo, type LightSample } from './light';

/** The visible half of a head as an ellipsoid, lit by one distant light and some of its surroundings (Lambert's cosine law), with a few odd places. */
function lit(azimuth: number, elevation: number, odd = 0.1): LightSample[] {
  const random = new Random(4);
  const way = wayTo({ azimuth, elevation });
  return Array.from({ length: 600 }, () => {
    const [x, y] = [random.between(-0.92, 0.92), random.between(-0.92, 0.92)];
    const z = Math.sqrt(Math.max(0, 1 - x * x - y * y));
    const raw = [x / 0.8, y, z / 0.9];
    const length = Math.hypot(...raw);
    const normal: [number, number, number] = [raw[0] / length, raw[1] / length, raw[2] / length];
    const facing = Math.max(0, normal[0] * way[0] + normal[1] * way[1] + normal[2] * way[2]);
    const albedo = 0.5 * (1 + 0.08 * random.gauss());
    const luminance = random.chance(odd) ? random.between(0, 0.9) : albedo * (0.15 + 0.85 * facing);
    return { normal, luminance, upper: y < 0.2, inside: x * x + y * y < 0.85 };
  }).filter((sample) => sample.inside);
}
const apart = (a: readonly number[], b: readonly number[]) => (Math.acos(Math.min(1, a[0] * b[0] + a[1] * b[1] + a[2] * b[2])) * 180) / Math.PI;

describe('the light on a face', () => {
  it.each([
    [0, 30],
    [-60, 20],
    [45, 45],
    [75, 0],
    [-30, -20],
  ])('is found within eight degrees when it comes from %d°, %d° high', (azimuth, elevation) => {
    const found = fitLight(lit(azimuth, elevation));
    if (!found) throw new Error('no light');
    expect(apart(wayTo(found), wayTo({ azimuth, elevation }))).toBeLessThan(8);
    expect(found.confidence).toBeGreaterThan(0.5);
  });
  it('is not sure where all is evenly lit, and unknown on too small a face', () => {
    const even = lit(0, 0, 0).map((sample, i) => ({ ...sample, luminance: 0.4 + 0.02 * Math.sin(i * 12.9898) }));
    expect(fitLight(even)?.confidence).toBeLessThan(0.3);
    expect(fitLight(even.slice(0, 20))).toBeNull();
  });
  it('is that of the upper half where a beard darkens the lower one', () => {
    const bearded = lit(-50, 25, 0.05).map((sample) => (sample.upper ? sample : { ...sample, luminance: sample.luminance * 0.15 }));
    const found = fitLight(bearded);
    if (!found) throw new Error('no light');
    expect(apart(wayTo(found), wayTo({ azimuth: -50, elevation: 25 }))).toBeLessThan(20);
  });
  it('is named as relief names it', () => {
    expect(asRelief({ azimuth: -90, elevation: 0, confidence: 1 })).toEqual({ direction: 270, elevation: 5 });
    expect(asRelief({ azimuth: 0, elevation: 50, confidence: 1 })).toEqual({ direction: 0, elevation: 40 });
    expect(asRelief({ azimuth: 0, elevation: 0, confidence: 1 }).elevation).toBe(85);
  });
});
