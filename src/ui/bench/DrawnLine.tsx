import { useReady } from '@/store/ready';
import { cover } from './handleStyles';

/** What is being drawn: a line along something level or upright, the first of two, or a freehand stroke. */
export function DrawnLine() {
  const { line, first, stroke } = useReady();
  const lines = [first?.view, line].filter((l) => l !== null && l !== undefined);
  if (lines.length === 0 && !stroke) return null;
  const path = stroke?.map(([x, y]) => `${x},${y}`).join(' ');
  return (
    <svg style={cover} aria-hidden>
      {path ? (
        <>
          <polyline points={path} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={4} />
          <polyline points={path} fill="none" stroke="#fff" strokeWidth={2} />
        </>
      ) : null}
      {lines.map(([x1, y1, x2, y2], i) => (
        <g key={i}>
          <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#000" strokeOpacity={0.5} strokeWidth={4} />
          <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#fff" strokeWidth={2} />
        </g>
      ))}
    </svg>
  );
}
