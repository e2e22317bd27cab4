import { UNITS } from '@/core/image/unit';
import type { Stroke } from '@/core/strokes/schema';
import { useSettings } from '@/store/settings';
import type { ToolPoint } from './gestures';

export const rounded = (v: number) => Math.round(v * 1e5) / 1e5;

/** Where the pointer is, as a point of a stroke. */
export function pointOf(point: ToolPoint): [number, number, number] {
  const pressure = useSettings.getState().penPressure ? point.pressure : 1;
  return [rounded(point.x), rounded(point.y), Math.round(pressure * 1000) / 1000];
}

/** Leaves out points nearer than a fiftieth of the tip: they cannot be seen and would only be stored. */
export function thinned(have: Stroke['points'], more: Stroke['points'], size: number): Stroke['points'] {
  const near = size / UNITS / 50;
  const out = [...have];
  for (const p of more) {
    const last = out[out.length - 1];
    if (Math.hypot(p[0] - last[0], p[1] - last[1]) >= near && out.length < 20000) out.push(p);
  }
  return out;
}
