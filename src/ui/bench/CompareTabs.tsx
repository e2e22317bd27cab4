import { useEffect, useRef, useState, type CSSProperties } from 'react';
import type { View } from '@/core/render/view';
import { neutralReady } from '@/core/ready/schema';
import { withParts } from '@/core/ready/parts';
import { useBench } from '@/store/bench';
import { isPhotoTab, useReady } from '@/store/ready';
import { SANS, useColours } from '../theme';
import { words } from '../words';

/** A press shorter than this stays on until the next one; a longer one shows while it is held, in ms. */
const TAP = 300;

interface HoldProps {
  label: string;
  says: string;
  on: boolean;
  show(on: boolean): void;
}

/** Shows something else while it is held, or from one tap to the next. */
function HoldTab({ label, says, on, show }: HoldProps) {
  const c = useColours();
  const began = useRef(0);
  const stays = useRef(false);
  const latest = useRef(show);
  useEffect(() => void (latest.current = show));
  // What it shows goes with it.
  useEffect(() => () => (stays.current ? latest.current(false) : undefined), []);
  const start = () => {
    began.current = Date.now();
    if (!on) stays.current = false;
    if (!stays.current) show(true);
  };
  const end = () => {
    const isTap = Date.now() - began.current < TAP;
    const next = isTap && !stays.current;
    stays.current = next;
    if (!next) show(false);
  };
  const isKey = (key: string) => key === ' ' || key === 'Enter';
  return (
    <button
      type="button"
      aria-pressed={on}
      title={says}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        start();
      }}
      onPointerUp={end}
      onPointerCancel={() => ((stays.current = false), show(false))}
      onKeyDown={(e) => isKey(e.key) && !e.repeat && (e.preventDefault(), start())}
      onKeyUp={(e) => isKey(e.key) && end()}
      onContextMenu={(e) => e.preventDefault()}
      style={{ ...tab, background: on ? c.accent : c.field, color: on ? c.onAccent : c.ink, fontFamily: SANS }}
    >
      {label}
    </button>
  );
}

/** Under the picture's left corner: shows the photo without coats; on the photo's tabs, the photo before its adjustments. */
export function PhotoTab() {
  const { piece, held, hold, chosen, facet, preview } = useBench();
  const [asTaken, setAsTaken] = useState(false);
  if (!piece) return null;
  if (isPhotoTab(chosen, facet)) {
    // Its frame stays, or it would jump.
    const raw = withParts(neutralReady, piece.ready ?? neutralReady, ['frame', 'lens'], true);
    const show = (on: boolean) => {
      setAsTaken(on);
      preview(on ? (now) => ({ ...now, ready: raw }) : null);
    };
    return piece.ready ? (
      <HoldTab label={words.compareTabs.asTaken} says={words.compareTabs.showsThePhotoBeforeAdjustments} on={asTaken} show={show} />
    ) : null;
  }
  if (piece.coats.length === 0) return null;
  return (
    <HoldTab
      label={words.common.photo}
      says={words.compareTabs.showsThePhotoWithoutCoats}
      on={held?.kind === 'photo'}
      show={(on) => hold(on ? { kind: 'photo' } : null)}
    />
  );
}

/** Under its right corner: the piece without the chosen coat, and that coat alone; on the photo's tabs, whether the coats show. */
export function CoatTabs() {
  const c = useColours();
  const { piece, chosen, facet, held, hold } = useBench();
  const { withCoats, set } = useReady();
  if (isPhotoTab(chosen, facet)) {
    return piece?.coats.length ? (
      <button
        type="button"
        role="switch"
        aria-checked={withCoats}
        onClick={() => set({ withCoats: !withCoats })}
        style={{ ...tab, background: withCoats ? c.accent : c.field, color: withCoats ? c.onAccent : c.ink, fontFamily: SANS }}
      >
        {words.compareTabs.showCoats}
      </button>
    ) : null;
  }
  if (!chosen) return null;
  const tabOf = (label: string, says: string, view: View) => (
    <HoldTab label={label} says={says} on={held?.kind === view.kind} show={(on) => hold(on ? view : null)} />
  );
  return (
    <div style={{ display: 'flex', gap: 1 }}>
      {tabOf(words.common.hide, words.compareTabs.showsThePieceWithoutThis, { kind: 'without', coat: chosen })}
      {tabOf(words.compareTabs.only, words.compareTabs.showsThisCoatAlone, { kind: 'alone', coat: chosen })}
    </div>
  );
}

const tab: CSSProperties = {
  border: 'none',
  minHeight: 44,
  minWidth: 54,
  padding: '0 12px',
  fontSize: 15,
  whiteSpace: 'nowrap',
  cursor: 'pointer',
  touchAction: 'none',
  WebkitUserSelect: 'none',
};
