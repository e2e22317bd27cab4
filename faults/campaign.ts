import { BadFile } from '../src/core/files/inspect';
import { damaged } from './mutate';
import { expectSentence, tally, type Tally } from './tally';

type Attempt = (bytes: Buffer) => Promise<void> | void;

/** Damaged copies of some files: each is read, or refused in one sentence. */
export const campaign = (name: string, good: readonly Buffer[], count: number, random: () => number, attempt: Attempt): Promise<Tally> =>
  tally(
    name,
    Array.from({ length: count }, (_, i) => [
      `${name} ${i}`,
      async () => {
        try {
          await attempt(i < good.length ? good[i] : damaged(good[i % good.length], random));
        } catch (error) {
          if (!(error instanceof BadFile) && !(error instanceof RangeError)) throw error;
          expectSentence(error);
        }
      },
    ]),
  );
