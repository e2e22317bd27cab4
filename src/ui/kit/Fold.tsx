import { useState, type CSSProperties, type ReactNode } from 'react';
import { SERIF, useColours } from '../theme';
import { words } from '../words';

/** A part of a panel under its name, opened and closed by it; a mark beside the name says that something in it has been changed. */
export function Fold({ title, changed, begin = false, children }: { title: string; changed?: boolean; begin?: boolean; children: ReactNode }) {
  const c = useColours();
  const [open, setOpen] = useState(begin || changed === true);
  return (
    <section style={{ borderTop: `1px solid ${c.line}`, marginTop: 8 }}>
      <h3 style={{ margin: 0 }}>
        <button type="button" aria-expanded={open} onClick={() => setOpen(!open)} style={{ ...head, color: c.ink, fontFamily: SERIF }}>
          <span aria-hidden style={{ ...arrow, transform: open ? 'rotate(90deg)' : undefined }}>
            ›
          </span>
          {title}
          {changed ? <span role="img" aria-label={words.fold.changed} style={{ ...dot, background: c.accent }} /> : null}
        </button>
      </h3>
      {open ? <div style={{ paddingBottom: 8 }}>{children}</div> : null}
    </section>
  );
}

const head: CSSProperties = {
  display: 'flex',
  alignItems: 'center',
  gap: 8,
  width: '100%',
  minHeight: 44,
  padding: 0,
  border: 'none',
  background: 'none',
  fontSize: 17,
  textAlign: 'left',
  cursor: 'pointer',
};
const arrow: CSSProperties = { display: 'inline-block', width: 12, textAlign: 'center', fontSize: 20, lineHeight: '20px' };
const dot: CSSProperties = { width: 8, height: 8, borderRadius: 1 };
