import type { PointerEvent } from 'react';
import type { Edit } from '@/core/piece/edits';
import { useBench } from '@/store/bench';
import { useHeldEdit } from '@/store/editing';
import { arrowStep, grab, mark } from './handleStyles';
import { toPhoto, toView, useViewport, zoomOf } from './viewport';

interface PointHandleProps {
  name: string;
  /** In fractions of the photo. */
  at: [number, number];
  /** What is changed when it moves there, and what the step and its run are called. */
  move(x: number, y: number): Edit;
  step: string;
  run: string;
  square?: boolean;
}

const keep = (n: number) => Math.min(1.5, Math.max(-0.5, Math.round(n * 1e4) / 1e4));

/** A point on the picture that is dragged, or moved by the arrow keys. */
export function PointHandle({ name, at, move, step, run, square }: PointHandleProps) {
  const v = useViewport();
  const held = useHeldEdit();
  const { change } = useBench.getState();
  const zoom = zoomOf(v);
  const { width: W, height: H } = v.photo;
  const [left, top] = toView(v, zoom, at[0] * W, at[1] * H);
  const pointed = (e: PointerEvent<HTMLElement>) => {
    const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
    const [px, py] = toPhoto(v, zoom, e.clientX - box.left, e.clientY - box.top);
    return move(keep(px / W), keep(py / H));
  };
  return (
    <button
      type="button"
      data-handle
      aria-label={name}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && held.show(pointed(e))}
      onPointerUp={() => held.keep(step, run)}
      onPointerCancel={() => held.drop()}
      onKeyDown={(e) => {
        const by = arrowStep(e.key);
        if (!by) return;
        e.preventDefault();
        e.stopPropagation();
        change(step, move(keep(at[0] + by[0] * 0.01), keep(at[1] + by[1] * 0.01)), run);
      }}
      style={{ ...grab, left: left - 22, top: top - 22 }}
    >
      <span style={{ ...mark, borderRadius: square ? 0 : '50%' }} />
    </button>
  );
}
