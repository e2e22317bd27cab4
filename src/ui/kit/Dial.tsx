import { useId, useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { SANS_MEDIUM, useColours } from '../theme';

interface DialProps {
  label: string;
  /** Degrees clockwise from the top, 0..360. */
  value: number;
  neutral: number;
  help?: string;
  onPreview?(value: number): void;
  onCommit(value: number): void;
}

const SIZE = 88;
/** How far the mark lies from the middle, in px. */
const RING = 32;

/** A direction, set by pointing: the mark lies where the light comes from. Holds at eighths of a turn. */
export function Dial({ label, value, neutral, help, onPreview, onCommit }: DialProps) {
  const c = useColours();
  const id = useId();
  const [live, setLive] = useState<number | null>(null);
  const held = useRef<'waits' | 'turns' | null>(null);
  const began = useRef({ x: 0, y: 0 });
  const shown = live ?? value;
  const angle = (e: PointerEvent<HTMLDivElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const raw = (Math.atan2(e.clientX - box.left - box.width / 2, box.top + box.height / 2 - e.clientY) * 180) / Math.PI;
    const turned = (raw + 360) % 360;
    const eighth = Math.round(turned / 45) * 45;
    return Math.round(Math.abs(turned - eighth) < 4 ? eighth % 360 : turned) % 360;
  };
  const show = (v: number) => {
    setLive(v);
    onPreview?.(v);
  };
  const rad = (shown * Math.PI) / 180;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 14, paddingVertical: 6 }}>
      <div
        role="slider"
        tabIndex={0}
        aria-labelledby={id}
        aria-valuemin={0}
        aria-valuemax={359}
        aria-valuenow={Math.round(shown) % 360}
        aria-valuetext={`${Math.round(shown)}°`}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          began.current = { x: e.clientX, y: e.clientY };
          const box = e.currentTarget.getBoundingClientRect();
          const toMark = Math.hypot(
            e.clientX - box.left - SIZE / 2 - Math.sin((value * Math.PI) / 180) * RING,
            e.clientY - box.top - SIZE / 2 + Math.cos((value * Math.PI) / 180) * RING,
          );
          held.current = e.pointerType !== 'touch' || toMark < 22 ? 'turns' : 'waits';
          if (e.pointerType !== 'touch') show(angle(e));
        }}
        onPointerMove={(e) => {
          // Vertical movement scrolls the sheet until the finger has moved sideways.
          if (held.current === 'waits' && Math.abs(e.clientX - began.current.x) > 8) held.current = 'turns';
          if (held.current === 'turns') show(angle(e));
        }}
        onPointerUp={(e) => {
          const isTap = Math.hypot(e.clientX - began.current.x, e.clientY - began.current.y) < 8;
          const counts = held.current === 'turns' || (held.current === 'waits' && isTap);
          held.current = null;
          setLive(null);
          if (counts) onCommit(angle(e));
        }}
        onPointerCancel={() => {
          const moved = live !== null;
          held.current = null;
          setLive(null);
          if (moved) onPreview?.(value);
        }}
        onDoubleClick={() => onCommit(neutral)}
        onKeyDown={(e) => {
          const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 45, PageDown: -45 }[e.key];
          if (!step) return;
          e.preventDefault();
          onCommit((Math.round(value) + step * (e.shiftKey ? 15 : 1) + 360) % 360);
        }}
        style={{ ...face, borderColor: c.line, background: c.raised }}
      >
        <div style={{ ...mark, left: SIZE / 2 + Math.sin(rad) * RING - 9, top: SIZE / 2 - Math.cos(rad) * RING - 9, background: c.accent }} />
        <div style={{ ...middle, background: c.quiet }} />
      </div>
      <View style={{ flex: 1 }}>
        <Text nativeID={id} style={{ color: c.ink, fontSize: 15 }}>
          {label}
        </Text>
        <Text style={{ color: c.ink, fontFamily: SANS_MEDIUM }}>{`${Math.round(shown)}°`}</Text>
        {help ? <Text style={{ color: c.quiet, fontSize: 13 }}>{help}</Text> : null}
      </View>
    </View>
  );
}

const face: CSSProperties = {
  position: 'relative',
  width: SIZE,
  height: SIZE,
  borderRadius: '50%',
  border: '1px solid',
  touchAction: 'pan-y',
  cursor: 'pointer',
  flexShrink: 0,
};
const mark: CSSProperties = { position: 'absolute', width: 18, height: 18, borderRadius: '50%' };
const middle: CSSProperties = { position: 'absolute', left: SIZE / 2 - 2, top: SIZE / 2 - 2, width: 4, height: 4, borderRadius: '50%' };
