import { useEffect, useId, useRef, useState, type CSSProperties } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { SANS_MEDIUM, useColours } from '../theme';
import { useHeld } from './held';
import { useSlowDrag } from './useSlowDrag';

/** A share, shown in hundredths. */
export const percent = { min: 0, max: 1, step: 0.01, unit: '%', factor: 100 };

export interface SliderProps {
  label: string;
  value: number;
  neutral: number;
  min: number;
  max: number;
  step: number;
  unit?: string;
  /** What is shown is value · factor. */
  factor?: number;
  help?: string;
  /** Why it can do nothing here. */
  idle?: string;
  /** While it is held. */
  onPreview?(value: number): void;
  onCommit(value: number): void;
}

const decimals = (step: number) => Math.max(0, Math.min(3, Math.ceil(-Math.log10(step) - 1e-9)));

/**
 * A slider that can be dragged (finely when slowly), typed into, stepped by keys and put back to neutral by a double tap. Away from neutral the mark is joined
 * to the thumb by the accent.
 */
export function Slider({ label, value, neutral, min, max, step, unit = '', factor = 1, help, idle, onPreview, onCommit }: SliderProps) {
  const c = useColours();
  const id = useId();
  const held = useHeld();
  const pending = useRef<number | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [live, setLive] = useState<number | null>(null);
  const shown = live ?? value;
  const places = decimals(step * factor);
  const text = typed ?? (shown * factor).toFixed(places);
  const changed = Math.abs(shown - neutral) > step / 2;

  const clamp = (v: number) => Math.min(max, Math.max(min, v));
  const preview = (v: number) => {
    pending.current = v;
    setLive(v);
    onPreview?.(v);
  };
  const slow = useSlowDrag({ min, max, step });
  const commit = () => {
    held.release(id);
    slow.end();
    if (pending.current === null) return;
    const v = pending.current;
    pending.current = null;
    setLive(null);
    onCommit(v);
  };
  const latest = useRef(commit);
  useEffect(() => void (latest.current = commit));
  // A slider that goes away while it is held keeps what it was set to.
  useEffect(() => () => latest.current(), []);

  const place = (v: number) => ((v - min) / (max - min)) * 100;
  const [a, b] = [Math.min(place(shown), place(neutral)), Math.max(place(shown), place(neutral))];
  const track = {
    '--fill': changed ? `linear-gradient(90deg, var(--track) ${a}%, var(--accent) ${a}%, var(--accent) ${b}%, var(--track) ${b}%)` : 'var(--track)',
    '--edge': changed ? 'var(--accent)' : 'var(--thumb)',
  };
  const hidden = held.id !== null && held.id !== id;

  return (
    <View style={[styles.row, hidden && styles.hidden]} testID={`slider-${label}`}>
      <View style={styles.head}>
        <Text style={[styles.label, { color: c.ink }]} nativeID={`${id}-label`}>
          {label}
        </Text>
        <View style={styles.value}>
          <input
            aria-label={`${label}, typed`}
            inputMode="decimal"
            value={text}
            onChange={(e) => setTyped(e.target.value)}
            onFocus={(e) => e.target.select()}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            onBlur={() => {
              const n = Number((typed ?? '').replace(',', '.'));
              setTyped(null);
              if (typed !== null && typed.trim() !== '' && Number.isFinite(n)) onCommit(clamp(n / factor));
            }}
            style={{ ...field, color: changed ? c.accent : c.ink, fontFamily: SANS_MEDIUM }}
          />
          <Text style={[styles.unit, { color: c.quiet }]}>{unit}</Text>
        </View>
      </View>
      <View style={styles.bar}>
        <input
          className="dx-range"
          type="range"
          aria-label={label}
          aria-valuetext={`${(shown * factor).toFixed(places)} ${unit}`.trim()}
          aria-describedby={idle || help ? `${id}-help` : undefined}
          min={min}
          max={max}
          step={step}
          value={shown}
          style={track as CSSProperties}
          onPointerDown={(e) => {
            held.take(id);
            slow.start(e, shown);
          }}
          onPointerMove={(e) => {
            const v = slow.move(e);
            if (v !== null) preview(v);
          }}
          onChange={(e) => {
            const v = Number(e.target.value);
            if (slow.accept(v)) preview(v);
          }}
          onPointerUp={commit}
          onPointerCancel={commit}
          onKeyUp={commit}
          onBlur={commit}
          onDoubleClick={() => {
            pending.current = null;
            setLive(null);
            onCommit(neutral);
          }}
        />
        <div
          aria-hidden
          style={{ ...mark, left: `calc(${place(neutral)}% + ${(0.5 - place(neutral) / 100) * 20}px)`, background: changed ? c.accent : c.quiet }}
        />
      </View>
      {idle || help ? (
        <Text nativeID={`${id}-help`} style={[styles.help, { color: idle ? c.accent : c.quiet }]}>
          {idle ?? help}
        </Text>
      ) : null}
    </View>
  );
}

const field: CSSProperties = {
  width: 52,
  height: 32,
  border: 'none',
  background: 'transparent',
  textAlign: 'right',
  fontSize: 15,
  fontVariantNumeric: 'tabular-nums',
  padding: 0,
  borderRadius: 2,
};
const mark: CSSProperties = { position: 'absolute', width: 2, height: 10, top: 'calc(50% + 6px)', marginLeft: -1, pointerEvents: 'none' };

const styles = StyleSheet.create({
  row: { paddingVertical: 4 },
  hidden: { opacity: 0 },
  head: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' },
  label: { fontSize: 15, lineHeight: 20 },
  value: { flexDirection: 'row', alignItems: 'center' },
  unit: { minWidth: 18, paddingLeft: 3, fontSize: 13 },
  bar: { position: 'relative' },
  help: { fontSize: 13, lineHeight: 17 },
});
