import type { CSSProperties } from 'react';
import type { Piece } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { useSettings } from '@/store/settings';
import { SANS, SANS_MEDIUM, useColours } from '../theme';
import { words } from '../words';

/** Three things to know, each once, when it first helps. */
const hints: readonly { id: string; text: string; when(piece: Piece, chosen: string | null): boolean }[] = [
  { id: 'coats', text: words.hints.coatsLieOverThePhoto, when: ({ coats }) => coats.length === 0 },
  { id: 'cards', text: words.hints.tapACardToWork, when: ({ coats }) => coats.length > 0 },
  { id: 'guards', text: words.hints.guardsKeepEyesAndLips, when: ({ coats, guards }) => coats.length > 0 && !guards },
];

/** The next hint at the lower edge of the picture, until it is dismissed for good. */
export function Hints() {
  const c = useColours();
  const piece = useBench((s) => s.piece);
  const chosen = useBench((s) => s.chosen);
  const { seenHints, set } = useSettings();
  const next = piece && hints.find(({ id, when }) => !seenHints.includes(id) && when(piece, chosen));
  if (!next) return null;
  return (
    <div style={place}>
      <div role="note" style={{ ...hint, background: c.raised, color: c.ink, border: `1px solid ${c.line}` }}>
        <span style={{ flex: 1 }}>{next.text}</span>
        <button type="button" onClick={() => set({ seenHints: [...seenHints, next.id] })} style={{ ...got, color: c.accent }}>
          {words.hints.gotIt}
        </button>
      </div>
    </div>
  );
}

const place: CSSProperties = {
  position: 'absolute',
  left: 12,
  right: 12,
  bottom: 12,
  display: 'flex',
  justifyContent: 'center',
  pointerEvents: 'none',
};
const hint: CSSProperties = {
  display: 'flex',
  alignItems: 'center',
  gap: 8,
  maxWidth: 460,
  paddingLeft: 14,
  borderRadius: 3,
  fontFamily: SANS,
  fontSize: 14,
  lineHeight: '18px',
};
const got: CSSProperties = {
  minHeight: 44,
  padding: '0 14px',
  border: 'none',
  background: 'none',
  fontFamily: SANS_MEDIUM,
  fontSize: 14,
  whiteSpace: 'nowrap',
  cursor: 'pointer',
  pointerEvents: 'auto',
};
