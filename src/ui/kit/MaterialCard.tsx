import type { CSSProperties, ReactNode } from 'react';
import { SANS, useColours } from '../theme';

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
export function MaterialCard({ size, label, says, on, favourite, onPress, children }: CardProps) {
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
