import { useEffect, useState } from 'react';
import { histogramOf } from '../core/measure/histogram';
import { levelOf, mapCoats } from '../core/piece/groups';
import { identify } from '../core/graph/key';
import { useBench } from './bench';
import { complain } from './notices';
import { small } from './scopes';

const none = new Uint32Array(256);

/** Counts of the levels of luma of what lies below a coat; measured anew when that has changed and rested. */
export function useLumaBelow(coat: string): Uint32Array {
  const piece = useBench((s) => s.piece);
  const [counts, setCounts] = useState<Uint32Array>(none);
  const level = piece ? levelOf(piece.coats, coat) : null;
  const at = level?.at ?? -1;
  // In a group, what lies under its outermost one counts too; the coat itself is left out.
  const outer = level?.groups[0];
  const under = [...(outer && piece ? piece.coats.slice(0, piece.coats.indexOf(outer)) : []), ...(level?.coats.slice(0, at) ?? [])]
    .map(identify)
    .join();
  useEffect(() => {
    if (!piece || at < 0) return;
    let gone = false;
    const timer = setTimeout(
      () =>
        void small({ ...piece, coats: mapCoats(piece.coats, (one) => (one.id === coat ? { ...one, visible: false } : one)) }, { kind: 'upTo', coat })
          .then(({ pixels }) => !gone && setCounts(histogramOf(pixels).luma))
          .catch(complain),
      200,
    );
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // The coats under it and the readied photo are all that it depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [piece?.photo.key, piece?.ready, at, under]);
  return counts;
}
