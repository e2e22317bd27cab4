import { useState } from 'react';
import { isConvex, wholeCorners, type Corners } from '@/core/image/corners';
import { withCorners } from '@/core/ready/perspective';
import { shownPiece, useBench } from '@/store/bench';
import { changeReady, readyOf } from '@/store/ready';
import { toPhoto, toView, useViewport, zoomOf } from './viewport';
import { arrowStep, cover, grab, mark } from './handleStyles';
import { words } from '../words';

const names = [words.corner.leftUpperCorner, words.corner.rightUpperCorner, words.corner.rightLowerCorner, words.corner.leftLowerCorner];

/** Four points of the photo that become its corners, over all of the photo as it was taken. */
export function CornerHandles() {
  const piece = useBench(shownPiece);
  const v = useViewport();
  const [live, setLive] = useState<Corners | null>(null);
  if (!piece) return null;
  const zoom = zoomOf(v);
  const { width: W, height: H } = v.photo;
  const corners = live ?? ((readyOf(piece).perspective?.corners ?? wholeCorners) as Corners);
  const places = corners.map(([x, y]) => toView(v, zoom, x * W, y * H));
  const moved = (i: number, x: number, y: number): Corners | null => {
    const clamp = (value: number) => Math.min(1.2, Math.max(-0.2, Math.round(value * 1e4) / 1e4));
    const next = corners.map((p, k) => (k === i ? [clamp(x), clamp(y)] : p)) as Corners;
    return isConvex(next) ? next : null;
  };
  const keep = (next: Corners) =>
    useBench.getState().change(
      words.corner.perspectiveByCorners,
      changeReady((r) => withCorners(piece.photo, r, next)),
      'corners',
    );
  return (
    <div data-handle style={cover}>
      <svg style={cover} aria-hidden>
        <path d={`M${places.map((p) => p.join(' ')).join('L')}Z`} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <path d={`M${places.map((p) => p.join(' ')).join('L')}Z`} fill="none" stroke="#fff" strokeWidth={1.5} />
      </svg>
      {places.map(([x, y], i) => (
        <button
          key={i}
          type="button"
          aria-label={names[i]}
          data-testid={`corner-${i}`}
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={(e) => {
            if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
            const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
            const [px, py] = toPhoto(v, zoom, e.clientX - box.left, e.clientY - box.top);
            const next = moved(i, px / W, py / H);
            if (next) setLive(next);
          }}
          onPointerUp={() => {
            if (live) keep(live);
            setLive(null);
          }}
          onPointerCancel={() => setLive(null)}
          onKeyDown={(e) => {
            const step = arrowStep(e.key);
            if (!step) return;
            const [dx, dy] = step;
            e.preventDefault();
            e.stopPropagation();
            const next = moved(i, corners[i][0] + dx * 0.005, corners[i][1] + dy * 0.005);
            if (next) keep(next);
          }}
          style={{ ...grab, left: x - 22, top: y - 22 }}
        >
          <span style={mark} />
        </button>
      ))}
    </div>
  );
}
