import { useEffect, useState } from 'react';
import { histogramOf } from '../core/measure/histogram';
import { indexOf } from '../core/piece/edits';
import { identify } from '../core/graph/key';
import { useBench } from './bench';
import { complain } from './notices';
import { small } from './scopes';

const none = new Uint32Array(256);

/** Counts of the levels of luma of what lies below a coat; measured anew when that has changed and rested. */
export function useLumaBelow(coat: string): Uint32Array {
  const piece = useBench((s) => s.piece);
  const [counts, setCounts] = useState<Uint32Array>(none);
  const at = piece ? indexOf(piece, coat) : -1;
  const under = (piece?.coats ?? []).slice(0, Math.max(0, at)).map(identify).join();
  useEffect(() => {
    if (!piece || at < 0) return;
    let gone = false;
    const timer = setTimeout(
      () =>
        void small(piece, { kind: 'upTo', coat: piece.coats[at - 1]?.id ?? null })
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
