import { useRef, type CSSProperties, type KeyboardEvent, type PointerEvent } from 'react';
import { apply, type Point } from '@/core/image/projection';
import { wholeCorners } from '@/core/image/corners';
import { setLay } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { sourceByKind } from '@/core/sources';
import { cornersOf, layPlace, type Lay } from '@/core/lay/lay';
import { centreOf, cornerBy, movedBy, scaledBy, stretchedBy, turnedBy } from '@/core/lay/laying';
import { nominalOf } from '@/core/lay/nominal';
import { chosenCoat, useBench } from '@/store/bench';
import { useHeldEdit } from '@/store/editing';
import { placing, useLaying } from '@/store/laying';
import { useColours } from '../theme';
import { arrowStep, cover, grab, mark } from './handleStyles';
import { toPhoto, toView, useViewport, zoomOf } from './viewport';
import { unitOf } from '@/core/image/unit';
import { words } from '../words';

interface Grip {
  id: string;
  says: string;
  /** Where it is seen, in CSS pixels of the view. */
  at: Point;
  round?: boolean;
  main?: boolean;
  change(lay: Lay, from: Point, to: Point, shift: boolean): Partial<Lay>;
  /** What an arrow key does, in pixels of the photo. */
  from: Point;
}

const corners = [words.lay.leftUpper, words.lay.rightUpper, words.lay.rightLower, words.lay.leftLower];
const INSET = 24;

/** Handles of the chosen coat's lay: its middle, corners, sides and turn, or its four corners in perspective. */
export function LayHandles() {
  const coat = useBench(chosenCoat);
  const inPlace = coat?.source.kind === 'cutout' && !coat.source.file;
  const laid = coat && !inPlace && sourceByKind(coat.source.kind as string).laid;
  return coat && laid ? <Grips coat={coat} /> : null;
}

function Grips({ coat }: { coat: Coat }) {
  const c = useColours();
  const v = useViewport();
  const single = useLaying((s) => s.corners);
  const held = useRef<{ grip: Grip; coat: Coat; from: Point } | null>(null);
  const edit = useHeldEdit();
  const { change } = useBench.getState();
  const zoom = zoomOf(v);
  const { photo } = v;
  const { lay } = coat;
  const frame = { ...photo, unit: unitOf(photo) };
  const nominal = nominalOf(coat.source, photo);
  const place = layPlace(lay, nominal, frame);
  const seen = (p: Point): Point => toView(v, zoom, ...apply(place, p));
  const quad = (cornersOf(lay) ?? wholeCorners).map(seen);
  const middle = toView(v, zoom, ...centreOf(lay, photo));
  const back = (p: Point): Point => toPhoto(v, zoom, ...p);
  const between = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const near = (p: Point) => clamped(middle, p, v.width, v.height);
  const grip = (id: string, says: string, at: Point, run: Grip['change'], more: Partial<Grip> = {}): Grip => ({
    id,
    says,
    at: near(at),
    change: run,
    from: back(near(at)),
    ...more,
  });
  const top = between(quad[0], quad[1]);
  const up = Math.hypot(top[0] - middle[0], top[1] - middle[1]) || 1;
  const above: Point = [top[0] + ((top[0] - middle[0]) / up) * 30, top[1] + ((top[1] - middle[1]) / up) * 30];
  const grips: Grip[] = single
    ? quad.map((at, i) => grip(`corner-${i}`, words.lay.cornerOfThePerspective(corners[i]), at, (l, a, b) => cornerBy(l, nominal, frame, i, a, b)))
    : [
        ...quad.map((at, i) => grip(`scale-${i}`, words.lay.scaleByTheCorner(corners[i].toLowerCase()), at, (l, a, b) => scaledBy(l, photo, a, b))),
        grip('across', words.lay.stretchAcross, between(quad[1], quad[2]), (l, a, b) => stretchedBy(l, photo, 'x', a, b)),
        grip('down', words.lay.stretchDown, between(quad[2], quad[3]), (l, a, b) => stretchedBy(l, photo, 'y', a, b)),
        grip('turn', words.lay.turnTheMaterial, above, (l, a, b, shift) => turnedBy(l, photo, a, b, shift), { round: true }),
        grip('middle', words.lay.moveTheMaterial, middle, (l, a, b) => movedBy(l, photo, a, b), { main: true }),
      ];

  const down = (g: Grip) => (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    held.current = { grip: g, coat, from: pointed(e) };
  };
  const pointed = (e: PointerEvent): Point => {
    const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
    return back([e.clientX - box.left, e.clientY - box.top]);
  };
  const move = (e: PointerEvent) => {
    const h = held.current;
    if (!h) return;
    const next = h.grip.change(h.coat.lay, h.from, pointed(e), e.shiftKey);
    edit.show(placing(h.coat, next), setLay(h.coat.id, next));
  };
  const drop = () => {
    if (held.current) edit.keep(held.current.grip.says);
    held.current = null;
  };
  const key = (g: Grip) => (e: KeyboardEvent) => {
    const step = arrowStep(e.key);
    if (!step) return;
    e.preventDefault();
    e.stopPropagation();
    const by = (e.shiftKey ? 20 : 2) / zoom;
    const next = g.change(lay, g.from, [g.from[0] + step[0] * by, g.from[1] + step[1] * by], false);
    change(g.says, setLay(coat.id, next), `${coat.id}.lay.${g.id}`);
  };
  const outline = `M${quad.map((p) => p.map((n) => n.toFixed(1)).join(' ')).join('L')}Z`;
  const turn = grips.find((g) => g.id === 'turn');
  return (
    <div style={cover} data-testid="lay-handles">
      <svg style={cover} aria-hidden>
        <path d={outline} fill="none" stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <path d={outline} fill="none" stroke="#fff" strokeWidth={1.5} />
        {turn ? <line x1={near(top)[0]} y1={near(top)[1]} x2={turn.at[0]} y2={turn.at[1]} stroke="#fff" strokeWidth={1.5} /> : null}
      </svg>
      {grips.map((g) => (
        <button
          key={g.id}
          type="button"
          data-handle
          data-testid={`lay-${g.id}`}
          aria-label={g.says}
          onPointerDown={down(g)}
          onPointerMove={move}
          onPointerUp={drop}
          onPointerCancel={() => {
            held.current = null;
            edit.drop();
          }}
          onKeyDown={key(g)}
          style={{ ...grab, cursor: cursors[g.id.split('-')[0]], left: g.at[0] - 22, top: g.at[1] - 22 }}
        >
          <span style={{ ...mark, background: g.main ? c.accent : '#fff', borderRadius: g.round ? 8 : 1 }} />
        </button>
      ))}
    </div>
  );
}

const cursors: Record<string, CSSProperties['cursor']> = { turn: 'grab', scale: 'nwse-resize', across: 'ew-resize', down: 'ns-resize' };

/** A point beyond the view drawn in along the line from the middle: a handle can always be reached, and a drag counts from where it is. */
function clamped(middle: Point, p: Point, width: number, height: number): Point {
  const within = ([x, y]: Point) => x >= INSET && y >= INSET && x <= width - INSET && y <= height - INSET;
  if (within(p)) return p;
  const limit = (n: number, most: number) => Math.min(Math.max(n, INSET), most - INSET);
  if (!within(middle)) return [limit(p[0], width), limit(p[1], height)];
  const [dx, dy] = [p[0] - middle[0], p[1] - middle[1]];
  const reach = (d: number, from: number, most: number) => (d > 0 ? (most - INSET - from) / d : d < 0 ? (INSET - from) / d : Infinity);
  const t = Math.min(reach(dx, middle[0], width), reach(dy, middle[1], height));
  return [middle[0] + dx * t, middle[1] + dy * t];
}
