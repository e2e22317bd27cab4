import { useEffect, useRef, useState, type CSSProperties } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Stage } from '@/core/render/stages';
import { getEngine } from '@/store/engine';
import { complain } from '@/store/notices';
import { Painter } from '../bench/painter';
import { zoomOf } from '../bench/viewport';
import { useCompareView } from './compareStore';

/** One state of the piece, drawn where the linked view is. */
export function Pane({ stage, style }: { stage: Stage; style?: CSSProperties }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [painter, setPainter] = useState<Painter | null>(null);
  const viewport = useCompareView(useShallow(({ width, height, x, y, zoom }) => ({ width, height, x, y, zoom })));
  const zoom = useCompareView(zoomOf);
  useEffect(() => {
    let made: Painter | null = null;
    let live = true;
    void getEngine().then((engine) => {
      if (!live || !canvas.current) return;
      made = new Painter(engine, canvas.current, complain);
      setPainter(made);
    }, complain);
    return () => {
      live = false;
      made?.close();
    };
  }, []);
  const { piece, view } = stage;
  useEffect(() => {
    const density = window.devicePixelRatio || 1;
    if (painter && viewport.width > 0) painter.request({ piece, view, chosen: null, viewport, zoom, density });
  }, [painter, piece, view, viewport, zoom]);
  return (
    <div style={{ position: 'absolute', inset: 0, overflow: 'hidden', ...style }}>
      <canvas ref={canvas} width={1} height={1} style={{ position: 'absolute' }} />
    </div>
  );
}
