import type { CSSProperties } from 'react';
import { SANS, useColours } from '../theme';
import { useBench } from '@/store/bench';
import type { View } from '@/core/render/view';

/** Pressed and held under the picture's left corner: the photo without coats. */
export function PhotoTab() {
  const any = useBench((s) => (s.piece?.coats.length ?? 0) > 0);
  return any ? <HoldTab label="Photo" says="Hold to see the photo without coats" view={{ kind: 'photo' }} /> : null;
}

/** Under its right corner: the piece without the chosen coat, and that coat alone. */
export function CoatTabs() {
  const chosen = useBench((s) => s.chosen);
  if (!chosen) return null;
  return (
    <div style={{ display: 'flex' }}>
      <HoldTab label="Hide coat" says="Hold to see the piece without this coat" view={{ kind: 'without', coat: chosen }} />
      <HoldTab label="Only this coat" says="Hold to see this coat alone" view={{ kind: 'alone', coat: chosen }} />
    </div>
  );
}

function HoldTab({ label, says, view }: { label: string; says: string; view: View }) {
  const c = useColours();
  const held = useBench((s) => s.held);
  const hold = useBench((s) => s.hold);
  const on = held?.kind === view.kind;
  const isKey = (key: string) => key === ' ' || key === 'Enter';
  return (
    <button
      type="button"
      aria-label={says}
      aria-pressed={on}
      title={says}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        hold(view);
      }}
      onPointerUp={() => hold(null)}
      onPointerCancel={() => hold(null)}
      onKeyDown={(e) => isKey(e.key) && !e.repeat && (e.preventDefault(), hold(view))}
      onKeyUp={(e) => isKey(e.key) && hold(null)}
      onBlur={() => hold(null)}
      onContextMenu={(e) => e.preventDefault()}
      style={{ ...tab, background: on ? c.accent : c.field, color: on ? c.onAccent : c.ink, fontFamily: SANS }}
    >
      {label}
    </button>
  );
}

const tab: CSSProperties = {
  border: 'none',
  minHeight: 44,
  minWidth: 58,
  padding: '0 12px',
  fontSize: 15,
  cursor: 'pointer',
  touchAction: 'none',
  WebkitUserSelect: 'none',
};
