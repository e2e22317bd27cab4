import { useRef, type PointerEvent } from 'react';

/** Pixels a millisecond below which a drag counts as slow; it then moves the value this share as far at the least. */
const SLOW = 0.15;
const FINEST = 0.12;

interface Range {
  min: number;
  max: number;
  step: number;
}

/**
 * Fine steps with a slower drag: the value follows the pointer at its own pace when that is quick, and less and less far the slower it
 * goes. `move` gives the value to take, or null when the pointer is not dragging.
 */
export function useSlowDrag({ min, max, step }: Range) {
  const drag = useRef<{ x: number; at: number; value: number; moved: boolean } | null>(null);
  return {
    /** The browser's own value of a press on the track; ignored once the pointer has moved. Returns whether it counts. */
    accept(value: number): boolean {
      if (!drag.current) return true;
      if (drag.current.moved) return false;
      drag.current.value = value;
      return true;
    },
    start(e: PointerEvent<HTMLInputElement>, value: number): void {
      drag.current = { x: e.clientX, at: performance.now(), value, moved: false };
    },
    move(e: PointerEvent<HTMLInputElement>): number | null {
      const d = drag.current;
      if (!d || e.clientX === d.x) return null;
      const now = performance.now();
      const far = e.clientX - d.x;
      const speed = Math.abs(far) / Math.max(1, now - d.at);
      const pace = Math.min(1, Math.max(FINEST, speed / SLOW));
      const width = Math.max(1, e.currentTarget.getBoundingClientRect().width);
      d.value = Math.min(max, Math.max(min, d.value + ((far * pace) / width) * (max - min)));
      Object.assign(d, { x: e.clientX, at: now, moved: true });
      return Math.min(max, Math.max(min, min + Math.round((d.value - min) / step) * step));
    },
    end(): void {
      drag.current = null;
    },
  };
}
