import type { CSSProperties, ReactNode } from 'react';
import type { SourceInput } from '@/core/piece/edits';
import { shelfId, useShelf } from '@/store/shelf';
import { SANS, useColours } from '../theme';
import { MaterialThumb } from './MaterialThumb';
import { OwnThumb } from './OwnThumb';
import type { Entry } from './shelfEntries';

interface CardsProps {
  entries: readonly Entry[];
  /** Least width of a card in CSS pixels. */
  size: number;
  /** The material in use, marked. */
  current?: SourceInput;
  /** Said after a card's name, where the same card stands elsewhere too. */
  also?: string;
  onChoose(source: SourceInput): void;
}

/** Materials of the shelf side by side. */
export function MaterialCards({ entries, size, current, also, onChoose }: CardsProps) {
  const favourites = useShelf((s) => s.favourites);
  // As many pixels as a card has, a little more than its least width.
  const side = Math.min(256, Math.ceil((size * 1.2 * (globalThis.devicePixelRatio || 1)) / 16) * 16);
  const used = current ? shelfId(current) : null;
  return (
    <div style={{ display: 'grid', gridTemplateColumns: `repeat(auto-fill, minmax(${size}px, 1fr))`, gap: 10 }}>
      {entries.map((e) => (
        <MaterialCard
          key={e.id}
          size={size}
          label={e.label}
          says={also ? `${e.label}, ${also}` : e.label}
          on={used === e.id}
          favourite={favourites.includes(e.id)}
          onPress={() => onChoose(e.source)}
        >
          {e.own ? <OwnThumb own={e.own} label="" /> : <MaterialThumb id={e.id} label="" side={side} />}
        </MaterialCard>
      ))}
    </div>
  );
}

interface CardProps {
  size: number;
  label: string;
  says: string;
  on: boolean;
  favourite: boolean;
  onPress(): void;
  children: ReactNode;
}

/** A material on the shelf: its picture and its name. */
function MaterialCard({ size, label, says, on, favourite, onPress, children }: CardProps) {
  const c = useColours();
  return (
    <button type="button" aria-pressed={on} aria-label={says} onClick={onPress} style={plain}>
      <span
        style={{
          display: 'block',
          position: 'relative',
          aspectRatio: '1',
          overflow: 'hidden',
          borderRadius: 2,
          background: c.card,
          outline: on ? `2.5px solid ${c.accent}` : `1px solid ${c.line}`,
          outlineOffset: on ? 1 : 0,
        }}
      >
        {children}
        {favourite ? <span aria-hidden style={{ ...ribbon, background: c.accent }} /> : null}
      </span>
      <span
        style={{
          display: 'block',
          paddingTop: 4,
          fontFamily: SANS,
          fontSize: 14,
          lineHeight: '17px',
          color: on ? c.accent : c.ink,
          minHeight: size > 100 ? 20 : 34,
          overflowWrap: 'anywhere',
        }}
      >
        {label}
      </span>
    </button>
  );
}

const plain: CSSProperties = {
  border: 'none',
  background: 'none',
  padding: 0,
  cursor: 'pointer',
  textAlign: 'left',
  display: 'block',
  alignSelf: 'start',
};
/** A strip of paper that sticks out: a favourite. */
const ribbon: CSSProperties = { position: 'absolute', top: 0, right: 8, width: 8, height: 18, boxShadow: '0 0 0 1px #fff' };
