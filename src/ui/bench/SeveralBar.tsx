import type { CSSProperties } from 'react';
import { useBench } from '@/store/bench';
import { duplicateSeveral, groupSeveral, lockSeveral, removeSeveral, severalCoats, showSeveral, useRail } from '@/store/several';
import { Act } from '../kit/Act';
import { SANS_MEDIUM, useColours } from '../theme';
import { words } from '../words';

/** What can be done to the coats that are chosen together: stands where the tabs of one coat stand else. */
export function SeveralBar() {
  const c = useColours();
  // Both are read by `severalCoats`.
  useRail((s) => s.several);
  useBench((s) => s.piece);
  const coats = severalCoats();
  const none = coats.length === 0;
  const shown = coats.some(({ visible }) => visible);
  const locked = coats.some((coat) => coat.locked);
  return (
    <div role="toolbar" aria-label={words.groups.severalCoats} style={{ ...bar, background: c.chrome, borderTop: `1px solid ${c.line}` }}>
      <div role="status" style={{ width: '100%', color: c.ink, fontFamily: SANS_MEDIUM, fontSize: 15 }}>
        {none ? words.groups.tapCards : words.groups.chosen(coats.length)}
      </div>
      <Act main disabled={none} onPress={groupSeveral}>
        {words.groups.group}
      </Act>
      <Act disabled={none} onPress={() => showSeveral(!shown)}>
        {shown ? words.common.hide : words.coatMenu.show}
      </Act>
      <Act disabled={none} onPress={() => lockSeveral(!locked)}>
        {locked ? words.groups.unlock : words.groups.lock}
      </Act>
      <Act disabled={none} onPress={duplicateSeveral}>
        {words.common.duplicate}
      </Act>
      <Act disabled={none} onPress={removeSeveral}>
        {words.common.remove}
      </Act>
      <Act onPress={() => useRail.getState().end()}>{words.groups.done}</Act>
    </div>
  );
}

const bar: CSSProperties = { display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 8, padding: '8px 12px', flexShrink: 0 };
