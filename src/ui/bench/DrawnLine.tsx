import type { CSSProperties } from 'react';
import { useReady } from '@/store/ready';

/** The line that is being drawn along something level or upright. */
export function DrawnLine() {
  const line = useReady((s) => s.line);
  if (!line) return null;
  const [x1, y1, x2, y2] = line;
  return (
    <svg style={cover} aria-hidden>
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#000" strokeOpacity={0.5} strokeWidth={4} />
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#fff" strokeWidth={2} />
    </svg>
  );
}

const cover: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' };
