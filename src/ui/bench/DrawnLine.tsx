import { useReady } from '@/store/ready';
import { cover } from './handleStyles';

/** The line that is being drawn along something level or upright, and the first of two. */
export function DrawnLine() {
  const { line, first } = useReady();
  const lines = [first?.view, line].filter((l) => l !== null && l !== undefined);
  if (lines.length === 0) return null;
  return (
    <svg style={cover} aria-hidden>
      {lines.map(([x1, y1, x2, y2], i) => (
        <g key={i}>
          <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#000" strokeOpacity={0.5} strokeWidth={4} />
          <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="#fff" strokeWidth={2} />
        </g>
      ))}
    </svg>
  );
}
