import { useEffect, useRef, type CSSProperties } from 'react';
import { Icon } from 'react-native-paper';
import { SANS, SANS_MEDIUM, useColours } from '../theme';
import type { MenuPlace } from './CoatMenu';
import { words } from '../words';

interface CardProps {
  on: boolean;
  url: string | null;
  title: string;
  name: string;
  /** What stands under the name. */
  under?: string;
  strength: number;
  visible?: boolean;
  locked?: boolean;
  /** Whether the coats of this group are shown; left out for what is no group. */
  unfolded?: boolean;
  /** Cards are being chosen together. */
  marking?: boolean;
  compact?: boolean;
  /** A picture of its mask. */
  inset?: string | null;
  describedBy?: string;
  testID: string;
  /** @param together - With a key that chooses several: Shift, Ctrl or Command. */
  onPress(together: boolean): void;
  /** A finger or the mouse rests on it. */
  onHold?(held: boolean): void;
  /** Hides or shows it. */
  onFlip?(): void;
  /** Shows the coats in it, or hides them. */
  onFold?(): void;
  onMenu?(at: MenuPlace): void;
}

/** How long a press rests before it counts as held, in ms. */
const RESTS = 450;

/** A card of the rail: what it is, its name and mode, a bar for its strength, an inset for its mask, and an eye. */
export function Card(props: CardProps) {
  const { on, url, title, name, under, strength, visible = true, locked, unfolded, marking, compact, inset, describedBy, testID } = props;
  const { onPress, onHold, onFlip, onFold, onMenu } = props;
  const c = useColours();
  const press = useRef<{ timer?: ReturnType<typeof setTimeout>; held: boolean }>({ held: false });
  const release = () => {
    clearTimeout(press.current.timer);
    if (press.current.held) onHold?.(false);
  };
  useEffect(() => () => clearTimeout(press.current.timer), []);
  return (
    <div style={{ position: 'relative', width: CARD }}>
      <button
        type="button"
        aria-pressed={on}
        aria-label={words.card.card(title, Math.round(strength * 100), visible, locked)}
        aria-describedby={describedBy}
        title={title}
        data-testid={testID}
        onClick={(e) => {
          if (press.current.held) press.current.held = false;
          else onPress(e.shiftKey || e.ctrlKey || e.metaKey);
        }}
        onPointerDown={(e) => {
          clearTimeout(press.current.timer);
          press.current.held = false;
          if (!onHold || e.button !== 0) return;
          press.current.timer = setTimeout(() => {
            press.current.held = true;
            onHold(true);
          }, RESTS);
        }}
        onPointerMove={(e) => (Math.abs(e.movementX) > 6 || Math.abs(e.movementY) > 6) && !press.current.held && clearTimeout(press.current.timer)}
        onPointerUp={release}
        onPointerCancel={release}
        onPointerLeave={release}
        onContextMenu={(e) => {
          e.preventDefault();
          // A long press shows the piece up to here; a right click, or the menu key, gives the actions.
          if (!press.current.held && (e.nativeEvent as PointerEvent).pointerType !== 'touch') onMenu?.({ x: e.clientX, y: e.clientY });
        }}
        style={{ ...plainButton, paddingTop: compact ? 6 : 8, width: CARD }}
      >
        <span
          style={{
            ...square,
            height: compact ? 44 : square.height,
            outline: on ? `2.5px solid ${c.accent}` : `1px solid ${c.line}`,
            outlineOffset: on ? 1 : 0,
            background: c.card,
            opacity: visible ? 1 : 0.4,
          }}
        >
          {url ? <img src={url} alt="" draggable={false} style={picture} /> : null}
          {inset ? <img src={inset} alt="" draggable={false} style={{ ...insetStyle, border: `1px solid ${c.raised}` }} /> : null}
          {locked ? (
            <span style={{ ...corner, background: c.chrome }}>
              <Icon source="lock-outline" size={13} color={c.ink} />
            </span>
          ) : null}
          {marking && onFlip ? (
            <span style={{ ...tick, background: on ? c.accent : c.chrome, borderColor: on ? c.accent : c.quiet }}>
              {on ? <Icon source="check" size={14} color={c.onAccent} /> : null}
            </span>
          ) : null}
          {onFlip ? <span aria-hidden style={{ ...bar, background: c.accent, width: `${strength * 100}%` }} /> : null}
        </span>
        {compact ? null : (
          <>
            <span style={{ ...word, color: on ? c.accent : c.ink, fontFamily: on ? SANS_MEDIUM : SANS }}>{name}</span>
            {under ? <span style={{ ...word, paddingTop: 0, lineHeight: '15px', color: c.quiet, fontFamily: SANS }}>{under}</span> : null}
          </>
        )}
      </button>
      {onFold ? (
        <button
          type="button"
          aria-expanded={unfolded}
          aria-label={unfolded ? words.card.fold(name) : words.card.unfold(name)}
          onClick={onFold}
          style={{ ...fold, top: compact ? 16 : 28 }}
        >
          <span style={{ ...eyeMark, margin: '10px 4px', background: c.chrome }}>
            <Icon source={unfolded ? 'chevron-left' : 'chevron-right'} size={17} color={c.ink} />
          </span>
        </button>
      ) : null}
      {onFlip && !marking ? (
        <button type="button" aria-label={visible ? words.card.hide(name) : words.card.show(name)} onClick={onFlip} style={eye}>
          <span style={{ ...eyeMark, background: c.chrome, opacity: visible ? 0.85 : 1 }}>
            <Icon source={visible ? 'eye-outline' : 'eye-off-outline'} size={15} color={visible ? c.ink : c.accent} />
          </span>
        </button>
      ) : null}
    </div>
  );
}

export const CARD = 66;
export const plainButton: CSSProperties = {
  border: 'none',
  background: 'none',
  padding: 0,
  cursor: 'pointer',
  display: 'block',
  textAlign: 'left',
  borderRadius: 2,
  WebkitUserSelect: 'none',
  WebkitTouchCallout: 'none',
};
export const square: CSSProperties = {
  display: 'block',
  position: 'relative',
  width: CARD,
  height: 56,
  borderRadius: 2,
  overflow: 'hidden',
  boxSizing: 'border-box',
};
const picture: CSSProperties = { width: '100%', height: '100%', objectFit: 'cover', display: 'block' };
const insetStyle: CSSProperties = { position: 'absolute', right: 3, top: 3, width: 20, height: 20, objectFit: 'cover' };
const bar: CSSProperties = { position: 'absolute', left: 0, bottom: 0, height: 3 };
const eye: CSSProperties = {
  position: 'absolute',
  left: -4,
  top: 2,
  width: 36,
  height: 36,
  border: 'none',
  background: 'none',
  padding: 0,
  cursor: 'pointer',
};
const corner: CSSProperties = { position: 'absolute', left: 3, bottom: 5, display: 'flex', padding: 1, borderRadius: 2, opacity: 0.9 };
const tick: CSSProperties = {
  position: 'absolute',
  left: 3,
  top: 3,
  width: 18,
  height: 18,
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  border: '1.5px solid',
  borderRadius: 2,
  boxSizing: 'border-box',
};
const fold: CSSProperties = {
  position: 'absolute',
  right: -8,
  width: 28,
  height: 40,
  border: 'none',
  background: 'none',
  padding: 0,
  cursor: 'pointer',
};
const eyeMark: CSSProperties = {
  display: 'flex',
  width: 20,
  height: 20,
  margin: '6px 6px',
  borderRadius: 2,
  alignItems: 'center',
  justifyContent: 'center',
};
const word: CSSProperties = {
  display: 'block',
  fontSize: 13,
  lineHeight: '16px',
  paddingTop: 3,
  whiteSpace: 'nowrap',
  overflow: 'hidden',
  textOverflow: 'ellipsis',
};
