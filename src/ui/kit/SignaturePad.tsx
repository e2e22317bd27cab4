import type { CSSProperties, PointerEvent } from 'react';
import type { SignatureLines } from '@/core/sources/signature';
import { useColours } from '../theme';
import { words } from '../words';

/** The pad's height to its width. */
const SHAPE = 0.42;
/** Pressure of what has none. */
const EVEN = 0.6;

/** A field in which a name is drawn; x of the lines runs from 0 to 1 across it, y on the same scale. */
export function SignaturePad({ lines, onChange }: { lines: SignatureLines; onChange(lines: SignatureLines): void }) {
  const c = useColours();
  const at = (e: { clientX: number; clientY: number; pressure: number; pointerType: string }, box: DOMRect): [number, number, number] => [
    Math.round(((e.clientX - box.left) / box.width) * 1e4) / 1e4,
    Math.round(((e.clientY - box.top) / box.width) * 1e4) / 1e4,
    e.pointerType === 'pen' ? Math.round(e.pressure * 100) / 100 : EVEN,
  ];
  const draw = (e: PointerEvent<HTMLDivElement>, begins: boolean) => {
    const box = e.currentTarget.getBoundingClientRect();
    const { nativeEvent } = e;
    const all = begins ? [] : (nativeEvent.getCoalescedEvents?.() ?? []);
    const points = (all.length > 0 ? all : [nativeEvent]).map((p) => at(p, box));
    onChange(begins ? [...lines, points] : [...lines.slice(0, -1), [...(lines.at(-1) ?? []), ...points].slice(0, 2000)]);
  };
  return (
    <div
      role="img"
      aria-label={words.signature.pad}
      data-testid="signature-pad"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        if (lines.length < 60) draw(e, true);
      }}
      onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && draw(e, false)}
      style={{ ...pad, background: c.raised, border: `1px solid ${c.quiet}` }}
    >
      <SignatureDrawing lines={lines} whole />
    </div>
  );
}

interface DrawingProps {
  lines: SignatureLines;
  width?: number;
  height?: number;
  /** Shows the whole pad; otherwise the drawing fills the box. */
  whole?: boolean;
}

/** Shows a signature. */
export function SignatureDrawing({ lines, width, height, whole }: DrawingProps) {
  const c = useColours();
  const all = lines.flat();
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const box =
    whole || all.length === 0 ? `0 0 1 ${SHAPE}` : `${left - 0.03} ${top - 0.03} ${Math.max(...xs) - left + 0.06} ${Math.max(...ys) - top + 0.06}`;
  return (
    <svg viewBox={box} width={width ?? '100%'} height={height ?? '100%'} aria-hidden>
      {lines.map((points, i) => (
        <polyline
          key={i}
          points={points.map(([x, y]) => `${x},${y}`).join(' ')}
          fill="none"
          stroke={c.ink}
          strokeWidth={0.012}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}

const pad: CSSProperties = { width: '100%', aspectRatio: `1 / ${SHAPE}`, touchAction: 'none', cursor: 'crosshair', borderRadius: 2 };
