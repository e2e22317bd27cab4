import { useEffect, useId, useRef, useState, type CSSProperties } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { SANS, SANS_MEDIUM, useColours } from '../theme';
import { dropHelp, showHelp } from './help';
import { useHeld } from './held';
import { THUMB, useTrackDrag } from './useTrackDrag';
import { words } from '../words';

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
  /** For an amount with a switch before it: whether it is on, and what a press on its label does. */
  toggle?: { on: boolean; flip(): void };
  /** For one whose label opens more controls: whether they are open, what stands under the label, and what a press does. */
  opens?: { open: boolean; note?: string; testID?: string; flip(): void };
  /** While it is held. */
  onPreview?(value: number): void;
  onCommit(value: number): void;
}

const decimals = (step: number) => Math.max(0, Math.min(3, Math.ceil(-Math.log10(step) - 1e-9)));

/**
 * One line: label, track, value. It can be dragged (finer further from the track), typed into, stepped by keys and put back to its default by a double
 * tap. It is filled from zero; a tick marks the default. A swipe that scrolls the sheet changes nothing.
 */
export function Slider(props: SliderProps) {
  const { label, value, neutral, min, max, step, unit = '', factor = 1, help, idle, toggle, opens, onPreview, onCommit } = props;
  const c = useColours();
  const id = useId();
  const held = useHeld();
  const pending = useRef<number | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [live, setLive] = useState<number | null>(null);
  const lastTap = useRef(0);
  const shown = live ?? value;
  const places = decimals(step * factor);
  const text = typed ?? (shown * factor).toFixed(places);
  const changed = Math.abs(shown - neutral) > step / 2;

  const clamp = (v: number) => Math.min(max, Math.max(min, v));
  const say = (pace = 1) => showHelp(id, pace < 1 ? words.slider.fineSteps(pace < 0.1) : (idle ?? help));
  useEffect(() => () => dropHelp(id), [id]);
  const preview = (v: number) => {
    pending.current = v;
    setLive(v);
    onPreview?.(v);
  };
  const letGo = () => {
    held.release(id);
    pending.current = null;
    setLive(null);
  };
  const commit = () => {
    const v = pending.current;
    letGo();
    if (v !== null) onCommit(v);
  };
  const latest = useRef(commit);
  useEffect(() => void (latest.current = commit));
  // A slider that goes away while it is held keeps what it was set to.
  useEffect(() => () => latest.current(), []);
  const reset = () => {
    letGo();
    onCommit(neutral);
  };
  const drag = useTrackDrag({
    min,
    max,
    step,
    value: shown,
    onDrag(v, pace) {
      held.take(id);
      say(pace);
      preview(v);
    },
    onEnd: commit,
    onCancel() {
      if (pending.current !== null) onPreview?.(value);
      letGo();
    },
    onTap(v) {
      say();
      const now = Date.now();
      if (now - lastTap.current < 350) reset();
      else onCommit(v);
      lastTap.current = now;
    },
  });

  const place = (v: number) => ((v - min) / (max - min)) * 100;
  // Filled from zero where zero is on the track, else from the default; an amount from its beginning.
  const from = min >= 0 && min <= step ? min : min < 0 && max > 0 ? 0 : neutral;
  const [a, b] = [Math.min(place(shown), place(from)), Math.max(place(shown), place(from))];
  const track = {
    '--fill': `linear-gradient(90deg, var(--track) ${a}%, var(--accent) ${a}%, var(--accent) ${b}%, var(--track) ${b}%)`,
    '--edge': changed ? 'var(--accent)' : 'var(--thumb)',
  };
  const hidden = held.id !== null && held.id !== id;

  return (
    <View style={[hidden && styles.hidden, idle ? styles.idle : null]} testID={`slider-${label}`}>
      <div className="dx-row" onPointerEnter={(e) => e.pointerType === 'mouse' && say()} onFocus={() => say()}>
        {toggle ? (
          <button type="button" role="switch" aria-checked={toggle.on} onClick={toggle.flip} style={{ ...name, ...flipStyle, color: c.ink }}>
            <span aria-hidden style={{ ...box, borderColor: toggle.on ? c.accent : c.quiet, background: toggle.on ? c.accent : 'transparent' }} />
            {label}
          </button>
        ) : opens ? (
          <button
            type="button"
            aria-expanded={opens.open}
            data-testid={opens.testID}
            onClick={opens.flip}
            style={{ ...name, ...flipStyle, color: c.ink, fontFamily: opens.open ? SANS_MEDIUM : SANS }}
          >
            <span aria-hidden style={{ ...arrow, transform: opens.open ? 'rotate(90deg)' : undefined }}>
              ›
            </span>
            <span>
              {label}
              {opens.note ? <span style={{ ...note, color: c.quiet }}>{opens.note}</span> : null}
            </span>
          </button>
        ) : (
          <span style={{ ...name, color: c.ink }}>{label}</span>
        )}
        <div className="dx-track" {...drag} onDoubleClick={reset}>
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
            onChange={(e) => preview(Number(e.target.value))}
            onKeyUp={commit}
            onBlur={commit}
          />
          {neutral > min && neutral < max ? (
            <div
              aria-hidden
              style={{
                ...mark,
                left: `calc(${place(neutral)}% + ${(0.5 - place(neutral) / 100) * THUMB}px)`,
                background: changed ? c.accent : c.quiet,
              }}
            />
          ) : null}
        </div>
        <input
          aria-label={words.common.typed(label)}
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
        <span style={{ ...units, color: c.quiet }}>{unit}</span>
      </div>
      {idle ? (
        <Text nativeID={`${id}-help`} style={[styles.help, { color: c.accent }]}>
          {idle}
        </Text>
      ) : help ? (
        <span id={`${id}-help`} className="dx-heard">
          {help}
        </span>
      ) : null}
    </View>
  );
}

const name: CSSProperties = { width: 128, flexShrink: 0, fontSize: 15, lineHeight: '17px', overflowWrap: 'anywhere', userSelect: 'none' };
const flipStyle: CSSProperties = {
  display: 'flex',
  alignItems: 'center',
  gap: 8,
  minHeight: 'inherit',
  padding: 0,
  border: 'none',
  background: 'none',
  textAlign: 'left',
  fontFamily: SANS,
  cursor: 'pointer',
};
const arrow: CSSProperties = { width: 10, fontSize: 18, lineHeight: '17px', textAlign: 'center' };
const note: CSSProperties = { display: 'block', fontSize: 12, lineHeight: '13px' };
const box: CSSProperties = { width: 16, height: 16, flexShrink: 0, boxSizing: 'border-box', border: '2px solid', borderRadius: 2 };
const units: CSSProperties = { width: 26, flexShrink: 0, paddingLeft: 3, fontSize: 13, boxSizing: 'border-box' };
const field: CSSProperties = {
  width: 44,
  height: 32,
  flexShrink: 0,
  border: 'none',
  background: 'transparent',
  textAlign: 'right',
  fontSize: 15,
  fontVariantNumeric: 'tabular-nums',
  padding: 0,
  borderRadius: 2,
};
const mark: CSSProperties = { position: 'absolute', width: 2, height: 8, top: 'calc(50% + 8px)', marginLeft: -1, pointerEvents: 'none' };

const styles = StyleSheet.create({
  hidden: { opacity: 0 },
  idle: { opacity: 0.75 },
  help: { fontSize: 13, lineHeight: 17 },
});
