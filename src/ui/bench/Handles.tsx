import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useColours } from '../theme';
import type { GradientPart } from '@/core/mask/parts/gradient';
import { MaskGradientHandles } from './GradientHandles';
import type { Ellipse } from '@/core/mask/parts/ellipse';
import { changePart } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { useHeldEdit } from '@/store/editing';
import { toPhoto, toView, useViewport, zoomOf } from './viewport';
import { arrowStep, cover, grab, mark } from './handleStyles';
import { words } from '../words';

type Grip = 'centre' | 'across' | 'down' | 'turn' | 'feather';
const says: Record<Grip, string> = {
  centre: words.handles.moveTheEllipse,
  across: words.handles.halfWidth,
  down: words.handles.halfHeight,
  turn: words.handles.turnTheEllipse,
  feather: words.handles.feather,
};

/** Handles of the chosen coat's ellipses, each 44 px to grab, while the facet that owns them is open. */
export function Handles() {
  const coat = useBench(chosenCoat);
  const facet = useBench((s) => s.facet);
  if (facet !== 'where' || !coat) return null;
  return coat.mask.parts.map((part, i) => {
    if (part.active === false) return null;
    if (part.kind === 'ellipse') return <EllipseHandles key={i} coat={coat.id} index={i} ellipse={part as unknown as Ellipse} />;
    if (part.kind === 'gradient') return <MaskGradientHandles key={i} coat={coat.id} index={i} part={part as unknown as GradientPart} />;
    return null;
  });
}

function EllipseHandles({ coat, index, ellipse }: { coat: string; index: number; ellipse: Ellipse }) {
  const c = useColours();
  const v = useViewport();
  const zoom = zoomOf(v);
  const { width: W, height: H } = v.photo;
  const held = useRef<Ellipse | null>(null);
  const edit = useHeldEdit();
  const { change } = useBench.getState();
  const turn = (ellipse.turn * Math.PI) / 180;
  const [cx, cy] = toView(v, zoom, ellipse.cx * W, ellipse.cy * H);
  const rx = ellipse.rx * W * zoom;
  const ry = ellipse.ry * H * zoom;
  const at = (u: number, w: number): [number, number] => [cx + u * Math.cos(turn) - w * Math.sin(turn), cy + u * Math.sin(turn) + w * Math.cos(turn)];
  const grips: [Grip, [number, number]][] = [
    ['centre', [cx, cy]],
    ['across', at(rx, 0)],
    ['down', at(0, ry)],
    ['turn', at(0, -ry - 34)],
    // On the far side from the half width's handle, so that the two are never on each other.
    ['feather', at(-Math.max(rx * (1 - ellipse.feather), 30), 0)],
  ];

  const dragged = (grip: Grip, e: PointerEvent): Partial<Ellipse> => {
    const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
    const [x, y] = toPhoto(v, zoom, e.clientX - box.left, e.clientY - box.top);
    if (grip === 'centre') return { cx: limit(x / W, -0.5, 1.5), cy: limit(y / H, -0.5, 1.5) };
    const dx = x - ellipse.cx * W;
    const dy = y - ellipse.cy * H;
    if (grip === 'turn') return { turn: Math.round((Math.atan2(dx, -dy) * 180) / Math.PI) };
    const along = Math.abs(dx * Math.cos(turn) + dy * Math.sin(turn));
    const over = Math.abs(dy * Math.cos(turn) - dx * Math.sin(turn));
    if (grip === 'feather') return { feather: limit(1 - along / (ellipse.rx * W), 0, 1) };
    return grip === 'across' ? { rx: limit(along / W, 0.01, 2) } : { ry: limit(over / H, 0.01, 2) };
  };
  const move = (grip: Grip) => (e: PointerEvent) => {
    if (!held.current) return;
    held.current = { ...held.current, ...dragged(grip, e) };
    edit.show(changePart(coat, index, held.current));
  };
  const key = (grip: Grip) => (e: KeyboardEvent) => {
    const step = arrowStep(e.key);
    if (!step) return;
    const [dx, dy] = step;
    e.preventDefault();
    e.stopPropagation();
    const by = 0.01;
    const next: Partial<Ellipse> =
      grip === 'centre'
        ? { cx: limit(ellipse.cx + dx * by, -0.5, 1.5), cy: limit(ellipse.cy + dy * by, -0.5, 1.5) }
        : grip === 'turn'
          ? { turn: Math.max(-180, Math.min(180, ellipse.turn + dx - dy)) }
          : grip === 'feather'
            ? { feather: limit(ellipse.feather + (dx - dy) * 0.02, 0, 1) }
            : grip === 'across'
              ? { rx: limit(ellipse.rx + (dx - dy) * by, 0.01, 2) }
              : { ry: limit(ellipse.ry + (dx + dy) * by, 0.01, 2) };
    change(words.handles.moveTheEllipse, changePart(coat, index, next), `${coat}.${index}.keys`);
  };
  const drop = () => {
    edit.keep(words.handles.moveTheEllipse);
    held.current = null;
  };
  return (
    <div data-handle style={cover}>
      <svg style={cover} aria-hidden>
        <g transform={`translate(${cx} ${cy}) rotate(${ellipse.turn})`} fill="none">
          <rect {...outline(rx, ry, ellipse.shape)} stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
          <rect {...outline(rx, ry, ellipse.shape)} stroke="#fff" strokeWidth={1.5} />
          <rect
            {...outline(rx * (1 - ellipse.feather), ry * (1 - ellipse.feather), ellipse.shape)}
            stroke="#fff"
            strokeOpacity={0.7}
            strokeDasharray="4 5"
          />
          <line y1={-ry} y2={-ry - 34} stroke="#fff" strokeWidth={1.5} />
        </g>
      </svg>
      {grips.map(([grip, [x, y]]) => (
        <button
          key={grip}
          type="button"
          aria-label={says[grip]}
          data-testid={`ellipse-${grip}`}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            held.current = ellipse;
          }}
          onKeyDown={key(grip)}
          onPointerMove={move(grip)}
          onPointerUp={drop}
          onPointerCancel={() => {
            edit.drop();
            held.current = null;
          }}
          style={{ ...grab, left: x - 22, top: y - 22 }}
        >
          <span
            style={{
              ...mark,
              background: grip === 'centre' ? c.accent : '#fff',
              borderRadius: grip === 'turn' ? 8 : 1,
              transform: grip === 'feather' ? 'rotate(45deg)' : undefined,
            }}
          />
        </button>
      ))}
    </div>
  );
}

/** A box about the middle whose corners are rounded, up to an ellipse. */
const outline = (rx: number, ry: number, shape: number) => ({
  x: -rx,
  y: -ry,
  width: Math.max(0, 2 * rx),
  height: Math.max(0, 2 * ry),
  rx: Math.max(0, rx * (1 - shape)),
  ry: Math.max(0, ry * (1 - shape)),
});

const limit = (x: number, lo: number, hi: number) => Math.min(hi, Math.max(lo, Math.round(x * 1e4) / 1e4));
