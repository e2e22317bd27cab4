import { useRef, useState, type CSSProperties, type ReactNode } from 'react';
import { useBench } from '@/store/bench';
import { useHeld } from '../kit/held';
import { SANS, useColours } from '../theme';
import { words } from '../words';

const heights = ['peek', 'half', 'full'] as const;
type Height = (typeof heights)[number];
const size: Record<Height, string> = { peek: '152px', half: '44vh', full: '62vh' };

/** On a phone, the open facet in the place of the rail. Three heights; while a slider is held all but that slider fades. */
export function Sheet({ label, children }: { label: string; children: ReactNode }) {
  const c = useColours();
  const [height, setHeight] = useState<Height>('half');
  const held = useHeld((s) => s.id !== null);
  const start = useRef<number | null>(null);
  const step = (by: number) => setHeight(heights[Math.min(2, Math.max(0, heights.indexOf(height) + by))]);
  const close = () => useBench.getState().openFacet(null);
  return (
    <div
      role="dialog"
      aria-label={label}
      style={{
        ...sheet,
        height: size[height],
        background: held ? 'transparent' : c.chrome,
        boxShadow: held ? 'none' : '0 -2px 8px rgba(0,0,0,0.25)',
      }}
    >
      <div style={{ ...head, visibility: held ? 'hidden' : 'visible' }}>
        <button
          type="button"
          aria-label={words.sheet.heightOfTheSheet(height)}
          style={{ ...grip, color: c.quiet }}
          onClick={() => setHeight(heights[(heights.indexOf(height) + 1) % 3])}
          onPointerDown={(e) => {
            start.current = e.clientY;
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onPointerUp={(e) => {
            const moved = start.current === null ? 0 : e.clientY - start.current;
            start.current = null;
            if (Math.abs(moved) > 24) step(moved < 0 ? 1 : -1);
          }}
        >
          <span style={{ display: 'block', width: 44, height: 4, borderRadius: 2, background: c.quiet }} />
        </button>
        <button type="button" onClick={close} style={{ ...done, color: c.ink, fontFamily: SANS }}>
          {words.common.done}
        </button>
      </div>
      {children}
    </div>
  );
}

const sheet: CSSProperties = { display: 'flex', flexDirection: 'column', flexShrink: 0, borderTopLeftRadius: 4, borderTopRightRadius: 4 };
const head: CSSProperties = { position: 'relative', display: 'flex', justifyContent: 'center', height: 20, flexShrink: 0 };
const grip: CSSProperties = {
  border: 'none',
  background: 'none',
  width: 160,
  height: 34,
  // Taller than it looks, so that a thumb finds it.
  marginTop: -8,
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  touchAction: 'none',
  cursor: 'ns-resize',
};
const done: CSSProperties = {
  position: 'absolute',
  right: 4,
  top: 18,
  zIndex: 1,
  border: 'none',
  background: 'none',
  height: 44,
  minWidth: 64,
  fontSize: 15,
  cursor: 'pointer',
};
