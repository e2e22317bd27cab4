import { useRef, type CSSProperties } from 'react';
import { useSettings } from '@/store/settings';
import { words } from '../words';

const [LEAST, MOST] = [340, 420];
const within = (width: number) => Math.round(Math.min(MOST, Math.max(LEAST, width)));

/** The edge between the picture and the panel: dragged, or moved by arrows; the width is remembered. */
export function PanelEdge() {
  const { panelWidth, set } = useSettings();
  const from = useRef<{ x: number; width: number } | null>(null);
  const resize = (width: number) => set({ panelWidth: within(width) });
  return (
    <div
      role="separator"
      aria-orientation="vertical"
      aria-label={words.panelEdge.widthOfThePanel}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      aria-valuenow={panelWidth}
      tabIndex={0}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { x: e.clientX, width: panelWidth };
      }}
      onPointerMove={(e) => from.current && resize(from.current.width + from.current.x - e.clientX)}
      onPointerUp={() => void (from.current = null)}
      onPointerCancel={() => void (from.current = null)}
      onKeyDown={(e) => {
        const step = { ArrowLeft: 10, ArrowRight: -10 }[e.key];
        if (!step) return;
        e.preventDefault();
        resize(panelWidth + step);
      }}
      style={edge}
    />
  );
}

const edge: CSSProperties = { width: 10, margin: '0 -5px', zIndex: 1, flexShrink: 0, cursor: 'col-resize', touchAction: 'none' };
