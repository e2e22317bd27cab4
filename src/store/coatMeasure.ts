import { useEffect, useState } from 'react';
import { histogramOf, type Histogram } from '../core/measure/histogram';
import { isGrey } from '../core/measure/grey';
import { changeCoat } from '../core/piece/edits';
import { identify } from '../core/graph/key';
import type { Coat } from '../core/piece/schema';
import { useBench } from './bench';
import { complain } from './notices';
import { small } from './scopes';

export interface CoatMeasure {
  histogram: Histogram;
  /** It has no colour to turn or to take away. */
  grey: boolean;
}

/** How a coat's pixels look by themselves after its first `steps` treatments; null until they have been measured. */
export function useCoatMeasure(coat: Coat, steps: number): CoatMeasure | null {
  const piece = useBench((s) => s.piece);
  const [look, setLook] = useState<CoatMeasure | null>(null);
  const before = coat.treatments.slice(0, steps);
  const name = [coat.source, coat.lay, ...before].map((part) => identify(part as object)).join();
  useEffect(() => {
    if (!piece) return;
    let gone = false;
    const measure = async () => {
      const alone = changeCoat(coat.id, (c) => ({ treatments: c.treatments.slice(0, steps) }))(piece);
      const { pixels } = await small(alone, { kind: 'alone', coat: coat.id });
      if (!gone) setLook({ histogram: histogramOf(pixels), grey: isGrey(pixels) });
    };
    const timer = setTimeout(() => void measure().catch(complain), 250);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // What it is made of and the steps before are all that it depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [piece?.photo.key, piece?.ready, coat.id, name]);
  return look;
}
