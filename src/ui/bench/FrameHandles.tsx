import { useRef, type CSSProperties, type KeyboardEvent, type PointerEvent } from 'react';
import { boxOf, cropOfBox, pull, reach, type Box, type Grip } from '@/core/ready/editing';
import type { Piece } from '@/core/piece/schema';
import { shownPiece, useBench } from '@/store/bench';
import { useHeldEdit } from '@/store/editing';
import { changeReady, readyOf, useReady } from '@/store/ready';
import { useHeld } from '../kit/held';
import { ratioOf } from './facets/FrameFacet';
import { toView, useViewport, zoomOf } from './viewport';
import { arrowStep, cover, grab, mark } from './handleStyles';
import { words } from '../words';

const grips: [Grip, number, number, string][] = [
  ['nw', 0, 0, words.frame.leftUpperCornerOfThe],
  ['n', 0.5, 0, words.frame.upperSideOfTheFrame],
  ['ne', 1, 0, words.frame.rightUpperCornerOfThe],
  ['e', 1, 0.5, words.frame.rightSideOfTheFrame],
  ['se', 1, 1, words.frame.rightLowerCornerOfThe],
  ['s', 0.5, 1, words.frame.lowerSideOfTheFrame],
  ['sw', 0, 1, words.frame.leftLowerCornerOfThe],
  ['w', 0, 0.5, words.frame.leftSideOfTheFrame],
];

/** The frame over all of the photo: what falls away is dimmed, thirds are ruled, a finer grid while it is levelled. */
export function FrameHandles() {
  const piece = useBench(shownPiece);
  const v = useViewport();
  const { shape, own, tool } = useReady();
  const levelling = useHeld((s) => s.id !== null);
  if (!piece) return null;
  const zoom = zoomOf(v);
  const box = boxOf(piece.photo, readyOf(piece));
  const [left, top] = toView(v, zoom, box.left, box.top);
  const [right, bottom] = toView(v, zoom, box.right, box.bottom);
  const ratio = ratioOf(shape, own, piece);
  const lines = levelling ? 8 : 3;
  const [w, h] = [right - left, bottom - top];
  return (
    <div style={cover}>
      <svg style={cover} aria-hidden>
        <path d={`M-9999 -9999H19999V19999H-9999Z M${left} ${top}V${bottom}H${right}V${top}Z`} fill="rgba(20,20,20,0.55)" fillRule="evenodd" />
        {Array.from({ length: lines - 1 }, (_, i) => (
          <g key={i} stroke="#fff" strokeOpacity={0.55} strokeWidth={1}>
            <line x1={left + (w * (i + 1)) / lines} x2={left + (w * (i + 1)) / lines} y1={top} y2={bottom} />
            <line y1={top + (h * (i + 1)) / lines} y2={top + (h * (i + 1)) / lines} x1={left} x2={right} />
          </g>
        ))}
        <rect x={left} y={top} width={w} height={h} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <rect x={left} y={top} width={w} height={h} fill="none" stroke="#fff" strokeWidth={1.5} />
      </svg>
      {tool === 'frame' ? (
        <div data-handle>
          <Pull piece={piece} grip="move" label={words.frame.moveTheFrame} style={{ left, top, width: w, height: h }} />
          {grips
            .filter(([grip]) => ratio === null || grip.length === 2 || Math.min(w, h) > 120)
            .map(([grip, x, y, label]) => (
              <Pull
                key={grip}
                piece={piece}
                grip={grip}
                label={label}
                style={{ left: left + w * x - 22, top: top + h * y - 22, width: 44, height: 44, cursor: `${grip}-resize` }}
              />
            ))}
        </div>
      ) : null}
    </div>
  );
}

interface PullProps {
  piece: Piece;
  grip: Grip | 'move';
  label: string;
  style: CSSProperties;
}

/** One side, corner or the middle of the frame: dragged, or moved by the arrow keys. */
function Pull({ piece, grip, label, style }: PullProps) {
  const drag = useRef<{ piece: Piece; box: Box; x: number; y: number } | null>(null);
  const zoom = zoomOf(useViewport());
  const { shape, own } = useReady();
  const held = useHeldEdit();
  const { change } = useBench.getState();

  const edit = (start: Piece, from: Box, dx: number, dy: number) => {
    const ready = readyOf(start);
    const wanted: Box =
      grip === 'move'
        ? { left: from.left + dx, top: from.top + dy, right: from.right + dx, bottom: from.bottom + dy }
        : pull(from, grip, dx, dy, ratioOf(shape, own, start));
    let to = reach(start.photo, ready, from, wanted);
    if (grip === 'move') {
      // A frame that is moved slides along the edge of the photo instead of stopping there.
      to = reach(start.photo, ready, to, { ...to, left: from.left + dx, right: from.right + dx });
      to = reach(start.photo, ready, to, { ...to, top: from.top + dy, bottom: from.bottom + dy });
    }
    return changeReady((old) => ({ ...old, crop: cropOfBox(start.photo, ready, to) }));
  };
  const moved = (e: PointerEvent) => {
    const d = drag.current;
    if (d && (e.clientX !== d.x || e.clientY !== d.y)) held.show(edit(d.piece, d.box, (e.clientX - d.x) / zoom, (e.clientY - d.y) / zoom));
  };
  const key = (e: KeyboardEvent) => {
    const step = arrowStep(e.key);
    if (!step) return;
    const [dx, dy] = step;
    e.preventDefault();
    e.stopPropagation();
    const by = (e.shiftKey ? 40 : 8) / zoom;
    change(words.frame.setTheFrame, edit(piece, boxOf(piece.photo, readyOf(piece)), dx * by, dy * by), 'frame.keys');
  };
  return (
    <button
      type="button"
      aria-label={label}
      data-testid={`frame-${grip}`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { piece, box: boxOf(piece.photo, readyOf(piece)), x: e.clientX, y: e.clientY };
      }}
      onPointerMove={moved}
      onPointerUp={(e) => {
        moved(e);
        drag.current = null;
        held.keep(words.frame.setTheFrame);
      }}
      onPointerCancel={() => {
        drag.current = null;
        held.drop();
      }}
      onKeyDown={key}
      style={{ ...grab, ...style }}
    >
      {grip === 'move' ? null : (
        <span style={{ ...mark, width: grip === 'n' || grip === 's' ? 22 : 12, height: grip === 'e' || grip === 'w' ? 22 : 12 }} />
      )}
    </button>
  );
}
