import { useState, type PointerEvent } from 'react';
import { fromFile } from '@/core/ready/geometry';
import type { Point } from '@/core/image/projection';
import type { Spot } from '@/core/ready/spots/schema';
import { shownPiece, useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { changeReady, chooseSpot, readyOf, useReady } from '@/store/ready';
import { arrowStep, cover, grab } from './handleStyles';
import { toView, useViewport, zoomOf } from './viewport';
import { words } from '../words';

/** A pointer's place in CSS pixels of the view. */
function inView(e: PointerEvent<HTMLElement>): Point {
  const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
  return [e.clientX - box.left, e.clientY - box.top];
}

/** Rings on what has been taken out; for the chosen one, where it was taken from, to drag. */
export function SpotHandles() {
  const piece = useBench(shownPiece);
  const v = useViewport();
  const { spot: chosen } = useReady();
  const [live, setLive] = useState<Point | null>(null);
  if (!piece) return null;
  const ready = readyOf(piece);
  const zoom = zoomOf(v);
  const { width: W, height: H } = piece.photo;
  /** Fractions of the file to CSS pixels of the view. */
  const place = ([x, y]: Point): Point => {
    const [fx, fy] = fromFile(piece.photo, ready, [x * W, y * H]);
    return toView(v, zoom, fx * v.photo.width, fy * v.photo.height);
  };
  const at = (spot: Spot): Point => place(spot.points[spot.points.length >> 1]);
  const radius = (spot: Spot) => Math.max(6, (spot.size / 4000) * Math.max(W, H) * zoom);
  const spot = chosen === null ? undefined : ready.spots[chosen];
  const sourceOf = (s: Spot): Point => {
    const [x, y] = s.points[s.points.length >> 1];
    return place([x + (s.from?.[0] ?? 0), y + (s.from?.[1] ?? 0)]);
  };
  const source = spot ? (live ?? sourceOf(spot)) : null;
  /** An offset in the view as an offset in the file, near the spot. */
  const offset = (s: Spot, to: Point): [number, number] => {
    const [x, y] = s.points[s.points.length >> 1];
    const [ox, oy] = place([x, y]);
    const [ax, ay] = place([x + 0.01, y]);
    const [bx, by] = place([x, y + 0.01]);
    const det = (ax - ox) * (by - oy) - (ay - oy) * (bx - ox);
    const [dx, dy] = [to[0] - ox, to[1] - oy];
    const clamp = (n: number) => Math.round(Math.min(1, Math.max(-1, n)) * 1e5) / 1e5;
    return [clamp((0.01 * (dx * (by - oy) - dy * (bx - ox))) / det), clamp((0.01 * (dy * (ax - ox) - dx * (ay - oy))) / det)];
  };
  const keep = (from: [number, number]) =>
    useBench.getState().change(
      words.spot.moveTheSource,
      changeReady((r) => ({ ...r, spots: r.spots.map((s, i) => (i === chosen ? { ...s, from } : s)) })),
      `spot.${chosen}`,
    );
  return (
    <div data-testid="spot-handles" style={cover}>
      <svg style={cover} aria-hidden>
        {ready.spots.map((s, i) => {
          const path = s.points.map(place);
          const on = i === chosen;
          const line =
            path.length > 1 ? <polyline points={path.map((p) => p.join(',')).join(' ')} /> : <circle cx={path[0][0]} cy={path[0][1]} r={radius(s)} />;
          return (
            <g key={i} fill="none">
              <g stroke="#000" strokeOpacity={0.5} strokeWidth={on ? 4 : 3}>
                {line}
              </g>
              <g stroke="#fff" strokeWidth={on ? 2 : 1.2} strokeDasharray={on ? undefined : '3 3'}>
                {line}
              </g>
            </g>
          );
        })}
        {spot && source ? (
          <g fill="none">
            <line x1={at(spot)[0]} y1={at(spot)[1]} x2={source[0]} y2={source[1]} stroke="#fff" strokeWidth={1.2} strokeDasharray="2 4" />
            <circle cx={source[0]} cy={source[1]} r={radius(spot) + 1.5} stroke="#000" strokeOpacity={0.5} strokeWidth={1.5} />
            <circle cx={source[0]} cy={source[1]} r={radius(spot)} stroke="#fff" strokeWidth={1.5} strokeDasharray="6 3" />
          </g>
        ) : null}
      </svg>
      {ready.spots.map((s, i) =>
        i === chosen ? null : (
          <button
            key={i}
            type="button"
            data-handle
            aria-label={words.spot.spot(i + 1)}
            onClick={() => void chooseSpot(i).catch(complain)}
            style={{ ...grab, cursor: 'pointer', left: at(s)[0] - 22, top: at(s)[1] - 22 }}
          />
        ),
      )}
      {spot && source ? (
        <button
          type="button"
          data-handle
          data-testid="spot-source"
          aria-label={words.spot.source}
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={(e) => {
            if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
            setLive(inView(e));
          }}
          onPointerUp={(e) => {
            // Where it lifts counts, not what has last been drawn.
            if (live) keep(offset(spot, inView(e)));
            setLive(null);
          }}
          onPointerCancel={() => setLive(null)}
          onKeyDown={(e) => {
            const step = arrowStep(e.key);
            if (!step) return;
            e.preventDefault();
            e.stopPropagation();
            keep(offset(spot, [source[0] + step[0] * 4, source[1] + step[1] * 4]));
          }}
          style={{ ...grab, left: source[0] - 22, top: source[1] - 22 }}
        />
      ) : null}
    </div>
  );
}
