import { useRef, useState, type CSSProperties, type KeyboardEvent, type PointerEvent } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import Svg, { Line, Path } from 'react-native-svg';
import { smoothCurve, type CurvePoint } from '@/core/treatments/curves';
import { useColours } from '../theme';
import { Act } from './Act';
import { words } from '../words';

interface CurveProps {
  label: string;
  points: CurvePoint[];
  /** Counts of 256 levels of what the curve works on, drawn behind it. */
  counts?: ArrayLike<number>;
  onPreview(points: CurvePoint[]): void;
  onCommit(points: CurvePoint[]): void;
}

const GAP = 0.02;
const clamp = (v: number, lo = 0, hi = 1) => Math.min(hi, Math.max(lo, Math.round(v * 1000) / 1000));

/** Moves one point, between its neighbours. The ends move too: that is where black and white begin. */
function put(points: CurvePoint[], i: number, x: number, y: number): CurvePoint[] {
  const lo = i === 0 ? 0 : points[i - 1][0] + GAP;
  const hi = i === points.length - 1 ? 1 : points[i + 1][0] - GAP;
  return points.map((p, k) => (k === i ? [clamp(x, lo, hi), clamp(y)] : p));
}

/** Counts as a hill: square roots, so that small ones are seen; clipped ends do not set the height. */
function hill(counts: ArrayLike<number>): string {
  const list = Array.from(counts);
  const peak = Math.max(1, ...list.slice(1, 255));
  const top = list.map((n, i) => `L${((i / 255) * 100).toFixed(1)} ${(100 - 92 * Math.min(1, Math.sqrt(n / peak))).toFixed(1)}`);
  return `M0 100${top.join('')}L100 100Z`;
}

/**
 * A curve by its points: press the line to add one, drag it, press it twice or press Delete to remove it. A finger drags the chosen point anywhere and
 * every other one after it has gone sideways, so that a swipe that scrolls changes nothing; a tap chooses a point or adds one.
 */
export function Curve({ label, points, counts, onPreview, onCommit }: CurveProps) {
  const c = useColours();
  const box = useRef<HTMLDivElement>(null);
  const held = useRef<{ i: number; points: CurvePoint[]; moved: boolean } | null>(null);
  const waits = useRef<{ x: number; y: number } | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [live, setLive] = useState<CurvePoint[] | null>(null);
  const shown = live ?? points;
  const curve = smoothCurve(shown);
  const straight = shown.length === 2 && shown.every(([x, y]) => x === y);

  const at = (e: PointerEvent): [number, number] => {
    const r = (box.current as HTMLDivElement).getBoundingClientRect();
    return [(e.clientX - r.left) / r.width, 1 - (e.clientY - r.top) / r.height];
  };
  const nearest = (e: PointerEvent) => {
    const [x, y] = at(e);
    const r = (box.current as HTMLDivElement).getBoundingClientRect();
    return shown.findIndex(([px, py]) => Math.hypot((px - x) * r.width, (py - y) * r.height) < 24);
  };
  const take = (e: PointerEvent) => {
    const [x, y] = at(e);
    const near = nearest(e);
    if (near >= 0) {
      held.current = { i: near, points: shown, moved: false };
      setChosen(near);
    } else if (shown.length < 16 && shown.every(([px]) => Math.abs(px - x) >= GAP) && x > 0 && x < 1) {
      const next = [...shown, [clamp(x), clamp(y)] as CurvePoint].sort((a, b) => a[0] - b[0]);
      const i = next.findIndex(([px]) => px === clamp(x));
      held.current = { i, points: next, moved: true };
      setChosen(i);
      setLive(next);
      onPreview(next);
    }
  };
  const down = (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    if (e.pointerType === 'touch' && (chosen === null || nearest(e) !== chosen)) waits.current = { x: e.clientX, y: e.clientY };
    else take(e);
  };
  const move = (e: PointerEvent) => {
    if (waits.current && Math.abs(e.clientX - waits.current.x) > 8) {
      waits.current = null;
      take(e);
    }
    if (!held.current) return;
    const next = put(held.current.points, held.current.i, ...at(e));
    held.current = { ...held.current, points: next, moved: true };
    setLive(next);
    onPreview(next);
  };
  const lift = (e: PointerEvent) => {
    if (waits.current && Math.hypot(e.clientX - waits.current.x, e.clientY - waits.current.y) < 8) take(e);
    up();
  };
  const cancel = () => {
    if (held.current?.moved) onPreview(points);
    waits.current = null;
    held.current = null;
    setLive(null);
  };
  const up = () => {
    waits.current = null;
    const h = held.current;
    held.current = null;
    setLive(null);
    if (h?.moved) onCommit(h.points);
  };
  const remove = (i: number) => i > 0 && i < points.length - 1 && onCommit(points.filter((_, k) => k !== i));
  const key = (i: number) => (e: KeyboardEvent) => {
    if (e.key === 'Delete' || e.key === 'Backspace') return (e.preventDefault(), e.stopPropagation(), remove(i));
    const [dx, dy] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key] ?? [0, 0];
    if (dx === 0 && dy === 0) return;
    e.preventDefault();
    const by = e.shiftKey ? 0.05 : 0.01;
    onCommit(put(points, i, points[i][0] + dx * by, points[i][1] + dy * by));
  };
  const path = Array.from({ length: 101 }, (_, i) => `${i === 0 ? 'M' : 'L'}${i} ${(100 - 100 * curve(i / 100)).toFixed(2)}`).join('');
  return (
    <View style={{ paddingVertical: 6 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' }}>
        <Text style={{ fontSize: 15, color: straight ? c.ink : c.accent }}>{label}</Text>
        <Act
          plain
          accessibilityLabel={words.curve.swapTheEndsOf(label.toLowerCase())}
          onPress={() => onCommit(points.map(([x, y]) => [x, clamp(1 - y)]))}
        >
          {words.common.swapEnds}
        </Act>
      </View>
      <div
        ref={box}
        data-testid={`curve-${label}`}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={lift}
        onPointerCancel={cancel}
        style={{ ...sheet, background: c.field }}
      >
        <Svg width="100%" height="100%" viewBox="0 0 100 100" preserveAspectRatio="none">
          {counts ? <Path d={hill(counts)} fill={c.line} /> : null}
          {[25, 50, 75].map((v) => (
            <Line key={v} x1={v} x2={v} y1={0} y2={100} stroke={c.line} strokeWidth={0.6} />
          ))}
          <Line x1={0} y1={100} x2={100} y2={0} stroke={c.line} strokeWidth={0.8} />
          <Path d={path} fill="none" stroke={straight ? c.quiet : c.accent} strokeWidth={1.4} />
        </Svg>
        {shown.map(([x, y], i) => (
          <button
            key={i}
            type="button"
            aria-label={words.curve.point(label, i + 1, Math.round(x * 100), Math.round(y * 100))}
            onKeyDown={key(i)}
            onDoubleClick={() => remove(i)}
            style={{
              ...dot,
              left: `calc(${x * 100}% - 22px)`,
              top: `calc(${(1 - y) * 100}% - 22px)`,
              touchAction: i === chosen ? 'none' : 'pan-y',
            }}
          >
            <span aria-hidden style={{ ...head, background: i === chosen ? c.accent : c.raised, borderColor: c.ink }} />
          </button>
        ))}
      </div>
    </View>
  );
}

const sheet: CSSProperties = {
  position: 'relative',
  width: '100%',
  height: 180,
  borderRadius: 2,
  touchAction: 'pan-y',
  cursor: 'crosshair',
  marginTop: 4,
};
const dot: CSSProperties = { position: 'absolute', width: 44, height: 44, padding: 15, border: 'none', background: 'none', boxSizing: 'border-box' };
const head: CSSProperties = { display: 'block', width: 14, height: 14, borderRadius: 7, border: '2px solid', boxSizing: 'border-box' };
