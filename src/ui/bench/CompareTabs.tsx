import type { CSSProperties } from 'react';
import { SANS, useColours } from '../theme';
import { useBench } from '@/store/bench';
import type { View } from '@/core/render/plan';

/** Pressed and held: the photo without coats, without the chosen coat, the chosen coat alone. At both lower corners, for either thumb. */
export function CompareTabs() {
  const chosen = useBench((s) => s.chosen);
  const any = useBench((s) => (s.piece?.coats.length ?? 0) > 0);
  if (!any) return null;
  return (
    <>
      <div style={{ ...corner, left: 0 }} data-handle>
        <HoldTab label="Photo" says="Hold to see the photo without coats" view={{ kind: 'photo' }} />
      </div>
      {chosen ? (
        <div style={{ ...corner, right: 0 }} data-handle>
          <HoldTab label="Without" says="Hold to see the piece without this coat" view={{ kind: 'without', coat: chosen }} />
          <HoldTab label="Alone" says="Hold to see this coat alone" view={{ kind: 'alone', coat: chosen }} />
        </div>
      ) : null}
    </>
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
      style={{ ...tab, background: on ? c.accent : c.chrome, color: on ? c.onAccent : c.ink, fontFamily: SANS }}
    >
      {label}
    </button>
  );
}

const corner: CSSProperties = { position: 'absolute', bottom: 0, display: 'flex', gap: 1 };
const tab: CSSProperties = {
  border: 'none',
  minHeight: 44,
  minWidth: 64,
  padding: '0 14px',
  fontSize: 15,
  cursor: 'pointer',
  touchAction: 'none',
  WebkitUserSelect: 'none',
};
