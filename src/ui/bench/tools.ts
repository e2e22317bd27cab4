import { strokeSchema, type Stroke } from '@/core/strokes/schema';
import { addStroke } from '@/core/piece/edits';
import { useBench } from '@/store/bench';
import { HeldEdit } from '@/store/editing';
import { useBrush } from '@/store/brush';
import { useSettings } from '@/store/settings';
import type { Tool, ToolPoint } from './gestures';
import { UNITS } from '@/core/image/unit';
import { words } from '../words';

const rounded = (v: number) => Math.round(v * 1e5) / 1e5;

const held = new HeldEdit();

/** The end of the last straight line, from which the next tap goes on. */
let lineEnd: { coat: string; x: number; y: number } | null = null;

/** Paints on the mask of the chosen coat. */
export const brushTool: Tool & { stroke: Stroke | null } = {
  stroke: null,
  down(point) {
    const { chosen } = useBench.getState();
    if (!chosen) return;
    const { set: _set, smooth: _smooth, straight, ...brush } = useBrush.getState();
    const points: Stroke['points'] = [at(point)];
    if ((straight || point.shift) && lineEnd?.coat === chosen) points.unshift([lineEnd.x, lineEnd.y, 1]);
    this.stroke = strokeSchema.parse({ ...brush, points });
    lag = points[points.length - 1];
    this.move([]);
  },
  move(points) {
    const { chosen } = useBench.getState();
    if (!this.stroke || !chosen) return;
    if (useBrush.getState().straight && points.length > 0) {
      // While the line is held its end follows; it is laid where the finger lifts.
      const start = this.stroke.points[0];
      this.stroke = { ...this.stroke, points: [start, at(points[points.length - 1])] };
    } else if (points.length > 0)
      this.stroke = { ...this.stroke, points: thinned(this.stroke.points, points.map(at).map(smoothed), this.stroke.size) };
    held.show(addStroke(chosen, this.stroke));
  },
  up(point) {
    const { chosen } = useBench.getState();
    if (!this.stroke || !chosen) return;
    // A tip that lags arrives where the finger lifts.
    if (useBrush.getState().smooth > 0) {
      this.stroke = { ...this.stroke, points: thinned(this.stroke.points, [at(point)], this.stroke.size) };
      held.show(addStroke(chosen, this.stroke));
    }
    const names = { take: words.common.erase, put: words.common.restore, level: words.tools.setTheMask };
    held.keep(names[this.stroke.does]);
    lineEnd = { coat: chosen, x: point.x, y: point.y };
    this.stroke = null;
  },
  cancel() {
    this.stroke = null;
    held.drop();
  },
};

type StrokePoint = Stroke['points'][number];
/** Where a lagging tip is. */
let lag: StrokePoint = [0, 0, 1];

/** The tip drawn after the pointer by a part of the way. */
function smoothed(p: StrokePoint): StrokePoint {
  const k = 1 - 0.92 * useBrush.getState().smooth;
  lag = [rounded(lag[0] + (p[0] - lag[0]) * k), rounded(lag[1] + (p[1] - lag[1]) * k), p[2]];
  return lag;
}

function at(point: ToolPoint): [number, number, number] {
  const pressure = useSettings.getState().penPressure ? point.pressure : 1;
  return [rounded(point.x), rounded(point.y), Math.round(pressure * 1000) / 1000];
}

/** Leaves out points nearer than a fiftieth of the tip: they cannot be seen and would only be stored. */
function thinned(have: Stroke['points'], more: Stroke['points'], size: number): Stroke['points'] {
  const near = size / UNITS / 50;
  const out = [...have];
  for (const p of more) {
    const last = out[out.length - 1];
    if (Math.hypot(p[0] - last[0], p[1] - last[1]) >= near && out.length < 20000) out.push(p);
  }
  return out;
}
