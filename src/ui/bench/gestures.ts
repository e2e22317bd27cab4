import { useEffect, useRef, type RefObject } from 'react';
import { toPhoto, useViewport, zoomOf } from './viewport';

export interface ToolPoint {
  /** Fractions of the photo; they may lie outside it. */
  x: number;
  y: number;
  /** CSS pixels in the view. */
  px: number;
  py: number;
  pressure: number;
  shift: boolean;
}

/** What one pointer does: paint, move a material, or nothing, in which case it pans. */
export interface Tool {
  down(point: ToolPoint): void;
  move(points: ToolPoint[]): void;
  up(point: ToolPoint): void;
  cancel(): void;
  /** What two fingers do, when it is not looking closer. Points stay in the order in which the fingers came. */
  pinch?: { begin(a: ToolPoint, b: ToolPoint): void; move(a: ToolPoint, b: ToolPoint): void; end(): void };
}

/**
 * Pointers on the picture: one works with the tool (or pans), two pinch and pan, the wheel zooms, Space pans. Raw pointer events, because
 * a brush needs every coalesced point and the pen's pressure.
 */
export function useGestures(
  place: RefObject<HTMLElement | null>,
  tool: Tool | null,
  onHover: (point: ToolPoint | null) => void,
  viewport: typeof useViewport = useViewport,
): void {
  const latest = useRef({ tool, onHover });
  useEffect(() => void (latest.current = { tool, onHover }));

  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const pointers = new Map<number, { x: number; y: number; point: ToolPoint }>();
    let working: Tool | null = null;
    let pinching: Tool | null = null;
    /** Where the first finger is while it works alone, and whether the rest of a pinch is being lifted. */
    let alone: ToolPoint | null = null;
    let resting = false;
    let space = false;
    const view = () => viewport.getState();

    const point = (e: PointerEvent): ToolPoint => {
      const box = element.getBoundingClientRect();
      const v = view();
      const [px, py] = [e.clientX - box.left, e.clientY - box.top];
      const [x, y] = toPhoto(v, zoomOf(v), px, py);
      const pressure = e.pointerType === 'pen' ? Math.max(0.02, e.pressure) : 1;
      return { x: x / v.photo.width, y: y / v.photo.height, px, py, pressure, shift: e.shiftKey };
    };
    const bothPoints = () => [...pointers.values()].map((p) => p.point) as [ToolPoint, ToolPoint];
    const down = (e: PointerEvent) => {
      if ((e.target as Element).closest('[data-handle]')) return;
      element.setPointerCapture(e.pointerId);
      pointers.set(e.pointerId, { x: e.clientX, y: e.clientY, point: point(e) });
      if (pointers.size === 2 && working?.pinch) {
        pinching = working;
        working = null;
        // From where the first finger came down: what it has moved since is part of the pinch.
        pinching.pinch?.begin(...bothPoints());
        const [first] = pointers.values();
        if (alone) first.point = alone;
      } else if (pointers.size === 2) {
        // A second finger means looking, not working: what the first has begun is taken back.
        working?.cancel();
        working = null;
      } else if (pointers.size === 1 && e.button === 0 && !space && latest.current.tool) {
        working = latest.current.tool;
        alone = null;
        working.down(point(e));
      }
      e.preventDefault();
    };
    const move = (e: PointerEvent) => {
      const before = pointers.get(e.pointerId);
      latest.current.onHover(point(e));
      if (!before || resting) return;
      if (pinching) {
        pointers.set(e.pointerId, { x: e.clientX, y: e.clientY, point: point(e) });
        if (pointers.size === 2) pinching.pinch?.move(...bothPoints());
        return;
      }
      if (working) {
        alone = point(e);
        const all = e.getCoalescedEvents?.() ?? [];
        working.move((all.length > 0 ? all : [e]).map(point));
        return;
      }
      if (pointers.size === 1) view().pan(e.clientX - before.x, e.clientY - before.y);
      else if (pointers.size === 2) {
        const [other] = [...pointers.entries()].filter(([id]) => id !== e.pointerId).map(([, p]) => p);
        const from = Math.hypot(before.x - other.x, before.y - other.y);
        const to = Math.hypot(e.clientX - other.x, e.clientY - other.y);
        const box = element.getBoundingClientRect();
        view().pan((e.clientX - before.x) / 2, (e.clientY - before.y) / 2);
        if (from > 0) view().zoomAt(to / from, (e.clientX + other.x) / 2 - box.left, (e.clientY + other.y) / 2 - box.top);
      }
      pointers.set(e.pointerId, { x: e.clientX, y: e.clientY, point: point(e) });
    };
    const up = (e: PointerEvent) => {
      if (!pointers.delete(e.pointerId)) return;
      if (pinching) {
        // The finger that stays does nothing more until it is lifted too.
        if (e.type === 'pointercancel') pinching.cancel();
        else pinching.pinch?.end();
        pinching = null;
        resting = pointers.size > 0;
        return;
      }
      resting = resting && pointers.size > 0;
      if (working) {
        if (e.type === 'pointercancel') working.cancel();
        else working.up(point(e));
        working = null;
      }
    };
    const leave = () => latest.current.onHover(null);
    const wheel = (e: WheelEvent) => {
      e.preventDefault();
      const box = element.getBoundingClientRect();
      view().zoomAt(Math.exp(-e.deltaY * (e.deltaMode === 1 ? 0.05 : 0.0015)), e.clientX - box.left, e.clientY - box.top);
    };
    const key = (e: KeyboardEvent) => {
      if (e.code !== 'Space' || (e.target as Element).closest?.('input, textarea, button, [role="button"], [role="radio"]')) return;
      space = e.type === 'keydown';
      element.style.cursor = space ? 'grab' : '';
      e.preventDefault();
    };
    element.addEventListener('pointerdown', down);
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', up);
    element.addEventListener('pointercancel', up);
    element.addEventListener('pointerleave', leave);
    element.addEventListener('wheel', wheel, { passive: false });
    window.addEventListener('keydown', key);
    window.addEventListener('keyup', key);
    return () => {
      element.removeEventListener('pointerdown', down);
      element.removeEventListener('pointermove', move);
      element.removeEventListener('pointerup', up);
      element.removeEventListener('pointercancel', up);
      element.removeEventListener('pointerleave', leave);
      element.removeEventListener('wheel', wheel);
      window.removeEventListener('keydown', key);
      window.removeEventListener('keyup', key);
    };
  }, [place, viewport]);
}
