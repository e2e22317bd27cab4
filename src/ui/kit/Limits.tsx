import { useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import Svg, { Path } from 'react-native-svg';
import { SANS, useColours } from '../theme';
import { words } from '../words';

/** Dark to light, 0..1, rising: nothing up to the first, all from the second to the third, nothing from the fourth. */
export type LimitValues = [number, number, number, number];

interface LimitsProps {
  /** Names it where there are several. */
  label?: string;
  value: LimitValues;
  /** Counts of 256 levels of luma of what lies below; empty until they are known. */
  counts: ArrayLike<number>;
  onPreview(value: LimitValues): void;
  onCommit(value: LimitValues, name: string): void;
}

const names = [words.limits.nothingBelow, words.limits.allFrom, words.limits.allUpTo, words.limits.nothingAbove] as const;
const HEIGHT = 76;

/** One of the four moved, between its neighbours. */
export function movedLimit(value: LimitValues, i: number, to: number): LimitValues {
  const low = i === 0 ? 0 : value[i - 1];
  const high = i === 3 ? 1 : value[i + 1];
  const v = Math.round(Math.min(high, Math.max(low, to)) * 1000) / 1000;
  return value.map((old, k) => (k === i ? v : old)) as LimitValues;
}

/** Where from dark to light a coat shows: four handles on the lights and darks of what lies below, the inner two above, the outer two below. */
export function Limits({ value, counts, onPreview, onCommit }: LimitsProps) {
  const c = useColours();
  const bar = useRef<HTMLDivElement>(null);
  const [live, setLive] = useState<LimitValues | null>(null);
  const began = useRef({ x: 0, y: 0, isSwipe: false });
  const shown = live ?? value;
  const [b0, b1, w0, w1] = shown.map((v) => v * 256);
  const peak = Math.max(1, ...Array.from(counts).slice(1, 255));
  const line = Array.from(counts, (n, i) => `L${i} ${(HEIGHT - Math.min(1, Math.sqrt(n / peak)) * HEIGHT).toFixed(1)}`).join('');
  const at = (e: PointerEvent) => {
    const box = (bar.current as HTMLDivElement).getBoundingClientRect();
    return (e.clientX - box.left) / box.width;
  };
  const handle = (i: number) => (
    <button
      key={i}
      type="button"
      role="slider"
      aria-label={names[i]}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(shown[i] * 100)}
      aria-valuetext={`${Math.round(shown[i] * 100)} %`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        began.current = { x: e.clientX, y: e.clientY, isSwipe: false };
        setLive(value);
      }}
      onPointerMove={(e) => {
        if (!live) return;
        // A finger that goes up or down first scrolls the sheet.
        const [across, down] = [Math.abs(e.clientX - began.current.x), Math.abs(e.clientY - began.current.y)];
        if (e.pointerType === 'touch' && live === value && down > 8 && down > across) began.current.isSwipe = true;
        if (began.current.isSwipe || (e.pointerType === 'touch' && across < 3)) return;
        const next = movedLimit(value, i, at(e));
        setLive(next);
        onPreview(next);
      }}
      onPointerUp={(e) => {
        if (live && live !== value) onCommit(movedLimit(value, i, at(e)), names[i]);
        setLive(null);
      }}
      onPointerCancel={() => {
        setLive(null);
        onPreview(value);
      }}
      onKeyDown={(e) => {
        const step = { ArrowRight: 0.01, ArrowUp: 0.01, ArrowLeft: -0.01, ArrowDown: -0.01 }[e.key];
        if (!step) return;
        e.preventDefault();
        onCommit(movedLimit(value, i, value[i] + step), names[i]);
      }}
      style={{ ...grab, left: `calc(${shown[i] * 100}% - 22px)`, color: c.ink }}
    >
      <svg width={18} height={14} aria-hidden>
        <path d={i === 1 || i === 2 ? 'M1 1H17L9 13Z' : 'M1 13H17L9 1Z'} fill={i < 2 ? '#222' : '#fff'} stroke={c.ink} strokeWidth={1.5} />
      </svg>
    </button>
  );
  return (
    <View>
      <div style={{ padding: '0 22px', fontFamily: SANS }}>
        <div style={row}>{[1, 2].map(handle)}</div>
        <div ref={bar} style={{ height: HEIGHT, background: c.field, border: `1px solid ${c.line}`, boxSizing: 'border-box' }}>
          <Svg width="100%" height="100%" viewBox={`0 0 256 ${HEIGHT}`} preserveAspectRatio="none">
            <Path d={`M0 ${HEIGHT}${line}L256 ${HEIGHT}Z`} fill={c.quiet} fillOpacity={0.55} />
            <Path
              d={`M${b0} ${HEIGHT}L${b1} 2L${w0} 2L${w1} ${HEIGHT}`}
              fill={c.accent}
              fillOpacity={0.14}
              stroke={c.accent}
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
            />
          </Svg>
        </div>
        <div style={row}>{[0, 3].map(handle)}</div>
      </div>
      <Text style={{ color: c.quiet, fontSize: 13 }}>
        {shown.every((v, i) => v === [0, 0, 1, 1][i])
          ? words.limits.showsOnAllTonesOf
          : words.limits.shownBetween(Math.round(shown[1] * 100), Math.round(shown[2] * 100), Math.round(shown[0] * 100), Math.round(shown[3] * 100))}
      </Text>
    </View>
  );
}

const row: CSSProperties = { position: 'relative', height: 44 };
const grab: CSSProperties = {
  position: 'absolute',
  width: 44,
  height: 44,
  padding: 0,
  border: 'none',
  background: 'none',
  cursor: 'ew-resize',
  // A scrolling swipe may begin here: the browser then cancels the pointer, and the value stays as it was.
  touchAction: 'pan-y',
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
};
