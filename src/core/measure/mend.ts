import type { CurvePoint } from '../treatments/curves';
import { castOf, quantile, rangeLevels, type Histogram } from './histogram';

export type Channel = 'red' | 'green' | 'blue';

/**
 * Points of a curve on the channel that stands apart, under which it meets the mean of the other two in the shadows, the middle tones and the
 * highlights; null when no cast is seen.
 */
export function castCurve(h: Histogram): { channel: Channel; points: CurvePoint[] } | null {
  const cast = castOf(h);
  if (!cast) return null;
  const points: CurvePoint[] = [[0, 0]];
  for (const levels of rangeLevels(h)) {
    const others = (['red', 'green', 'blue'] as const).filter((c) => c !== cast.channel);
    const x = levels[cast.channel] / 255;
    const y = (levels[others[0]] + levels[others[1]]) / 2 / 255;
    const last = points[points.length - 1];
    // Ranges that lie on nearly the same level say the same thing.
    if (x > last[0] + 0.02 && x < 0.98) points.push([round(x), round(Math.max(last[1], Math.min(1, y)))]);
  }
  points.push([1, 1]);
  return { channel: cast.channel, points };
}

/** Curves that spread each channel over the whole range, a few in a thousand of its pixels clipped at either end. */
export function stretchCurves(h: Histogram, clipped = 0.002): Record<Channel, CurvePoint[]> {
  const stretch = (counts: Uint32Array): CurvePoint[] => {
    const low = quantile(counts, clipped) / 255;
    const high = quantile(counts, 1 - clipped) / 255;
    // A channel with hardly any range would only turn to noise.
    if (high - low < 0.1)
      return [
        [0, 0],
        [1, 1],
      ];
    return [
      [round(low), 0],
      [round(high), 1],
    ];
  };
  return { red: stretch(h.red), green: stretch(h.green), blue: stretch(h.blue) };
}

const round = (v: number) => Math.round(v * 1000) / 1000;
