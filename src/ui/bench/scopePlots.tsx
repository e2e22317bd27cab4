import Svg, { Circle, Line, Path } from 'react-native-svg';
import type { Histogram } from '@/core/measure/histogram';
import { paradeLines, type Parade } from '@/core/measure/parade';
import type { HueWheel } from '@/core/measure/wheel';
import { useColours } from '../theme';

const WIDTH = 256;
export const PLOT_HEIGHT = 96;
const HEIGHT = PLOT_HEIGHT;
/** Red, green and blue of near the same lightness, readable on either theme's field. */
const inks = ['#b8433c', '#3f8a4b', '#3d6fb0'] as const;

/** Counts as an outline from the left to the right; the square root keeps small counts visible. */
function outline(counts: Uint32Array, most: number): string {
  const y = (v: number) => (HEIGHT * (1 - Math.sqrt(Math.min(1, v / most)))).toFixed(1);
  return `M0 ${HEIGHT}${Array.from(counts, (v, i) => `L${i} ${y(v)}`).join('')}L255 ${HEIGHT}`;
}

/** Both ends are left out of the height: a clipped peak would flatten all else. */
const highest = (...all: Uint32Array[]) => Math.max(1, ...all.flatMap((counts) => [...counts.slice(1, 255)]));

/** Luma filled, red, green and blue as lines; the luma of before dashed. */
export function HistogramPlot({ now, before, tall = HEIGHT }: { now: Histogram; before: Histogram | null; tall?: number }) {
  const c = useColours();
  const most = highest(now.luma, now.red, now.green, now.blue);
  return (
    <Svg width="100%" height={tall} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
      {[64, 128, 192].map((x) => (
        <Line key={x} x1={x} x2={x} y1={0} y2={HEIGHT} stroke={c.line} strokeWidth={1} />
      ))}
      <Path d={outline(now.luma, most)} fill={c.quiet} fillOpacity={0.45} />
      {[now.red, now.green, now.blue].map((counts, i) => (
        <Path key={i} d={outline(counts, most)} fill="none" stroke={inks[i]} strokeWidth={1.2} />
      ))}
      {before ? <Path d={outline(before.luma, highest(before.luma))} fill="none" stroke={c.ink} strokeWidth={1} strokeDasharray="3 2" /> : null}
    </Svg>
  );
}

/** One panel a channel: along it the picture from left to right, up it the level; most pixels lie in the dark band, half of them in its core. */
export function ParadePlot({ parade, tall = HEIGHT }: { parade: Parade; tall?: number }) {
  const c = useColours();
  const gap = 8;
  const width = (WIDTH - 2 * gap) / 3;
  const y = (level: number) => (HEIGHT * (1 - level / 255)).toFixed(1);
  return (
    <Svg width="100%" height={tall} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
      {[0.25, 0.5, 0.75].map((k) => (
        <Line key={k} x1={0} x2={WIDTH} y1={HEIGHT * k} y2={HEIGHT * k} stroke={c.line} strokeWidth={1} />
      ))}
      {([0, 1, 2] as const).map((channel) => {
        const [low, quarter, middle, three, high] = paradeLines(parade, channel, [0.02, 0.25, 0.5, 0.75, 0.98]);
        const x = (i: number) => (channel * (width + gap) + (width * (i + 0.5)) / parade.columns).toFixed(1);
        const line = (levels: (number | null)[]) => levels.flatMap((v, i) => (v === null ? [] : [`${x(i)} ${y(v)}`]));
        const band = (a: (number | null)[], b: (number | null)[]) => `M${[...line(a), ...line(b).reverse()].join('L')}Z`;
        if (line(middle).length === 0) return null;
        return [
          <Path key={`${channel}-all`} d={band(low, high)} fill={inks[channel]} fillOpacity={0.28} />,
          <Path key={`${channel}-half`} d={band(quarter, three)} fill={inks[channel]} fillOpacity={0.45} />,
          <Path key={`${channel}-middle`} d={`M${line(middle).join('L')}`} fill="none" stroke={inks[channel]} strokeWidth={1.3} />,
        ];
      })}
    </Svg>
  );
}

/** Hues around a circle, red to the right: how far each reaches, darker the more there is of it; the dot is the mean of the whole. */
export function HuePlot({ wheel }: { wheel: HueWheel }) {
  const c = useColours();
  const size = 148;
  const middle = size / 2;
  const radius = middle - 6;
  const sectors = wheel.share.length;
  const at = (turn: number, r: number) => `${(middle + r * Math.cos(turn)).toFixed(1)} ${(middle - r * Math.sin(turn)).toFixed(1)}`;
  const most = Math.max(0.001, ...wheel.share);
  // Chroma of photographs is mostly small: its root spreads the inner part.
  const spread = (chroma: number) => radius * Math.sqrt(Math.min(1, chroma));
  const [a, o] = wheel.mean;
  const size2 = Math.hypot(a, o);
  const dot = spread(size2) / Math.max(1e-6, size2);
  return (
    <Svg width="100%" height={size} viewBox={`0 0 ${size} ${size}`}>
      {[0.1, 0.4, 1].map((r) => (
        <Circle key={r} cx={middle} cy={middle} r={spread(r)} fill="none" stroke={c.line} strokeWidth={1} />
      ))}
      {Array.from(wheel.share, (share, s) => {
        if (share < 0.0005) return null;
        const [from, to] = [((s - 0.5) * 2 * Math.PI) / sectors, ((s + 0.5) * 2 * Math.PI) / sectors];
        const r = spread(wheel.reach[s]);
        return (
          <Path
            key={s}
            d={`M${middle} ${middle}L${at(from, r)}A${r} ${r} 0 0 0 ${at(to, r)}Z`}
            fill={`hsl(${(s * 360) / sectors} 55% 50%)`}
            fillOpacity={0.25 + 0.75 * Math.sqrt(share / most)}
          />
        );
      })}
      <Circle cx={middle + a * dot} cy={middle - o * dot} r={4} fill={c.raised} stroke={c.ink} strokeWidth={1.5} />
    </Svg>
  );
}
