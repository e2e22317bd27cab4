import type { Region } from '../../image/tile';
import type { Value } from './operation';
import { operationOf, type Schedule } from './schedule';

/** Planes of working memory that an operation takes besides its own, at most: halved copies, margins, a copy to smooth. */
const OF_ONE_STEP = 4;
/** Tables of strokes and threads. */
const TABLES = 12 * 2 ** 20;

/** Bytes of working memory that carrying out a schedule takes at most. */
export function peakBytes({ steps, regions, uses, inputs }: Schedule): number {
  const left = new Map([...uses].map(([id, counts]) => [id, [...counts]]));
  const bytes = (id: number) => {
    const { width, height } = regions.get(id) as Region;
    return width * height * 4;
  };
  let [live, most, largest] = [0, 0, 0];
  for (const step of steps) {
    const own = bytes(step.id);
    live += own * (operationOf(step).planes ?? 1);
    most = Math.max(most, live);
    largest = Math.max(largest, own);
    for (const input of inputs.get(step.id) as Value[]) {
      const counts = left.get(input.step.id) as number[];
      counts[input.plane] -= 1;
      if (counts[input.plane] === 0) live -= bytes(input.step.id);
    }
  }
  return most + OF_ONE_STEP * largest + TABLES;
}
