import { useEffect, useState } from 'react';
import { paletteOf, toHex } from '../core/measure/palette';
import { shownPiece, useBench } from './bench';
import { complain } from './notices';
import { small } from './scopes';

/** Colours found in the readied photo; empty until they have been looked for. */
export function usePalette(): readonly string[] {
  const piece = useBench((s) => s.piece ?? shownPiece(s));
  const [found, setFound] = useState<readonly string[]>([]);
  const key = piece?.photo.key;
  const ready = piece?.ready;
  useEffect(() => {
    let gone = false;
    if (piece)
      void small({ ...piece, coats: [] }, { kind: 'piece' })
        .then(({ pixels }) => !gone && setFound(paletteOf(pixels, 6, 3).map(toHex)))
        .catch(complain);
    return () => void (gone = true);
    // Coats do not change the photo's colours.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, ready]);
  return found;
}
