import type { CSSProperties } from 'react';

/** Over the whole picture, letting pointers through. */
export const cover: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' };

/** What is grabbed: 44 px, whatever is seen of it. */
export const grab: CSSProperties = {
  position: 'absolute',
  width: 44,
  height: 44,
  padding: 0,
  border: 'none',
  background: 'none',
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  cursor: 'move',
  touchAction: 'none',
  pointerEvents: 'auto',
};

/** What is seen of a handle. */
export const mark: CSSProperties = {
  width: 13,
  height: 13,
  background: '#fff',
  border: '1.5px solid #222',
  boxShadow: '0 0 0 1px rgba(255,255,255,0.7)',
};

/** By how much an arrow key moves something; null for other keys. */
export const arrowStep = (key: string): [number, number] | null =>
  (({ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }) as Record<string, [number, number]>)[key] ?? null;
