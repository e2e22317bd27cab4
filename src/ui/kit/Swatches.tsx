import { useEffect, useId, useRef, type CSSProperties } from 'react';
import { swatches } from '@/core/first';
import { useColours } from '../theme';
import { dropHelp, showHelp } from './help';
import { words } from '../words';

interface SwatchesProps {
  label: string;
  help: string;
  /** null where there is none. */
  value: string | null;
  /** Colours of the photo. */
  photo: readonly string[];
  onPreview(value: string): void;
  onCommit(value: string | null): void;
}

/** A colour in one line: a tap takes one, a second tap on it takes it off; the last opens the system's picker. */
export function Swatches({ label, help, value, photo, onPreview, onCommit }: SwatchesProps) {
  const c = useColours();
  const id = useId();
  useEffect(() => () => dropHelp(id), [id]);
  const system = useRef<HTMLInputElement>(null);
  const keep = useRef(onCommit);
  useEffect(() => void (keep.current = onCommit));
  useEffect(() => {
    const input = system.current;
    const done = () => input && keep.current(input.value);
    input?.addEventListener('change', done);
    return () => input?.removeEventListener('change', done);
  }, []);
  const offered = [...swatches, ...photo.map((colour, i) => ({ name: words.swatches.ofThePhoto(i + 1), colour }))];
  const isOther = value !== null && !offered.some(({ colour }) => colour === value);
  return (
    <div className="dx-row" role="group" aria-label={label} onFocus={() => showHelp(id, help)} onPointerEnter={() => showHelp(id, help)}>
      <span style={{ ...nameStyle, color: c.ink }}>{label}</span>
      <div style={list}>
        {offered.map(({ name, colour }) => {
          const on = colour === value;
          return (
            <button
              key={name}
              type="button"
              aria-label={`${label}: ${name}`}
              aria-pressed={on}
              onClick={() => onCommit(on ? null : colour)}
              style={{ ...hit }}
            >
              <span style={{ ...patch, background: colour, outline: `${on ? 3 : 1}px solid ${on ? c.accent : c.quiet}` }} />
            </button>
          );
        })}
        <label style={{ ...hit, position: 'relative' }}>
          <span
            aria-hidden
            style={{
              ...patch,
              background: isOther ? value : `conic-gradient(#a33, #aa3, #3a3, #3aa, #33a, #a3a, #a33)`,
              outline: `${isOther ? 3 : 1}px solid ${isOther ? c.accent : c.quiet}`,
            }}
          />
          <input
            ref={system}
            type="color"
            aria-label={words.swatches.other(label)}
            value={value ?? '#3a2314'}
            onChange={(e) => onPreview(e.currentTarget.value)}
            style={overlay}
          />
        </label>
      </div>
    </div>
  );
}

const nameStyle: CSSProperties = { width: 64, flexShrink: 0, fontSize: 15, userSelect: 'none' };
const list: CSSProperties = { display: 'flex', flex: 1, overflowX: 'auto', scrollbarWidth: 'none', touchAction: 'pan-x pan-y' };
const hit: CSSProperties = {
  width: 40,
  minWidth: 40,
  minHeight: 44,
  padding: 0,
  border: 'none',
  background: 'none',
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  cursor: 'pointer',
};
const patch: CSSProperties = { width: 24, height: 24, borderRadius: 2 };
const overlay: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%', opacity: 0, cursor: 'pointer' };
