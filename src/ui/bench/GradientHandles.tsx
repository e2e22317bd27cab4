import { useState, type PointerEvent } from 'react';
import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { arrowStep, cover, grab, mark } from './handleStyles';
import { toPhoto, toView, useViewport, zoomOf } from './viewport';

interface Ends extends SourceInput {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** The two ends of a gradient on the picture: where its first colour stands, and its last. */
export function GradientHandles() {
  const coat = useBench(chosenCoat);
  const v = useViewport();
  const [held, setHeld] = useState(false);
  if (!coat || (coat.source as { kind: string }).kind !== 'gradient') return null;
  const { preview, change } = useBench.getState();
  const source = coat.source as unknown as Ends;
  const zoom = zoomOf(v);
  const { width: W, height: H } = v.photo;
  const ends = [
    { name: 'First end of the gradient', x: source.x1, y: source.y1, keys: ['x1', 'y1'] },
    { name: 'Last end of the gradient', x: source.x2, y: source.y2, keys: ['x2', 'y2'] },
  ];
  const places = ends.map((e) => toView(v, zoom, e.x * W, e.y * H));
  const moved = (keys: string[], x: number, y: number) => {
    const keep = (n: number) => Math.min(1.5, Math.max(-0.5, Math.round(n * 1e4) / 1e4));
    return exchangeSource(coat.id, { ...source, [keys[0]]: keep(x), [keys[1]]: keep(y) });
  };
  const pointed = (e: PointerEvent<HTMLElement>, keys: string[]) => {
    const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
    const [px, py] = toPhoto(v, zoom, e.clientX - box.left, e.clientY - box.top);
    return moved(keys, px / W, py / H);
  };
  return (
    <div style={cover} data-testid="gradient-handles">
      <svg style={cover} aria-hidden>
        <line x1={places[0][0]} y1={places[0][1]} x2={places[1][0]} y2={places[1][1]} stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <line x1={places[0][0]} y1={places[0][1]} x2={places[1][0]} y2={places[1][1]} stroke="#fff" strokeWidth={1.5} />
      </svg>
      {ends.map((end, i) => (
        <button
          key={end.name}
          type="button"
          data-handle
          aria-label={end.name}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            setHeld(true);
          }}
          onPointerMove={(e) => held && e.currentTarget.hasPointerCapture(e.pointerId) && preview(pointed(e, end.keys))}
          onPointerUp={(e) => {
            if (held) change('Move the gradient', pointed(e, end.keys), `${coat.id}.gradient`);
            setHeld(false);
          }}
          onPointerCancel={() => {
            setHeld(false);
            preview(null);
          }}
          onKeyDown={(e) => {
            const step = arrowStep(e.key);
            if (!step) return;
            e.preventDefault();
            e.stopPropagation();
            change('Move the gradient', moved(end.keys, end.x + step[0] * 0.01, end.y + step[1] * 0.01), `${coat.id}.gradient`);
          }}
          style={{ ...grab, left: places[i][0] - 22, top: places[i][1] - 22 }}
        >
          <span style={{ ...mark, borderRadius: i === 0 ? '50%' : 0 }} />
        </button>
      ))}
    </div>
  );
}
