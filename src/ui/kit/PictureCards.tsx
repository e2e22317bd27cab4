import type { CSSProperties, ReactNode } from 'react';
import { SANS, SANS_MEDIUM, useColours } from '../theme';

interface Card {
  name: string;
  on?: boolean;
  picture: ReactNode;
  press(): void;
}

/** Small pictures side by side under their names, one of which can be taken. */
export function PictureCards({ label, cards }: { label: string; cards: Card[] }) {
  const c = useColours();
  return (
    <div role="group" aria-label={label} style={row}>
      {cards.map(({ name, on, picture, press }) => (
        <button
          key={name}
          type="button"
          aria-pressed={on ?? false}
          onClick={press}
          style={{
            ...card,
            color: c.ink,
            background: on ? c.raised : 'none',
            borderColor: on ? c.accent : c.line,
            fontFamily: on ? SANS_MEDIUM : SANS,
          }}
        >
          <span style={{ ...frame, background: c.field }}>{picture}</span>
          {name}
        </button>
      ))}
    </div>
  );
}

const row: CSSProperties = { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(132px, 1fr))', gap: 8, padding: '6px 0' };
const card: CSSProperties = { border: '1px solid', borderRadius: 2, padding: 4, fontSize: 14, cursor: 'pointer', textAlign: 'left' };
const frame: CSSProperties = { display: 'block', height: 84, marginBottom: 4, overflow: 'hidden' };
