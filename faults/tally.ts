import { cut } from '../src/core/cut';

/** What a part of the campaign has come to. */
export interface Tally {
  name: string;
  tried: number;
  held: number;
  /** What was lost or silently wrong, in words; each begins with how to make it again. */
  lost: string[];
}

/** Counts tries; one that throws is lost, and says why. */
export async function tally(name: string, tries: Iterable<[label: string, attempt: () => Promise<void> | void]>): Promise<Tally> {
  const result: Tally = { name, tried: 0, held: 0, lost: [] };
  for (const [label, attempt] of tries) {
    result.tried++;
    // A long part says how far it is, should it be cut off.
    if (result.tried % 25 === 0) console.log(`    ${name}: ${result.held} of ${result.tried - 1} held`);
    try {
      await attempt();
      result.held++;
    } catch (error) {
      console.log(`    ${name}: ${(error as Error).message.slice(0, 400)}`);
      result.lost.push(`${cut(label)}: ${(error as Error).message.split('\n').slice(0, 3).join(' ')}`);
    }
  }
  return result;
}

/** One sentence for a person: no trace, no path of ours, not endless. */
export function expectSentence(error: unknown): void {
  const text = error instanceof Error ? error.message : String(error);
  if (!/[.…]$/.test(text.trim()) || text.length > 600 || /\bat .*\.(ts|js|mjs):\d|node_modules|undefined|\[object/.test(text))
    throw new Error(`not a sentence for a person: ${text}`);
}
