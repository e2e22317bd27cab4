import { setFinishCurves, finishCurves } from '../core/piece/finish';
import type { FirstLook, SourceInput } from '../core/piece/edits';
import { sourceName } from '../core/piece/naming';
import { useBench } from './bench';
import { newId } from './newId';
import { say } from './notices';
import { castMended, histogramOfPiece } from './scopes';
import { words } from './words';

/** The edit that sets curves of the finished piece; the same coat as long as one control is held. */
export function finishEdit(): (curves: Parameters<typeof setFinishCurves>[0]) => ReturnType<typeof setFinishCurves> {
  const id = newId();
  return (curves) => setFinishCurves(curves, id, words.finish.curves);
}

/** Mends the cast of the whole piece by a curve on top of it; false when none is seen. */
export async function mendFinish(): Promise<boolean> {
  const { piece, change } = useBench.getState();
  if (!piece) return false;
  const mended = castMended(await histogramOfPiece(piece), finishCurves(piece));
  if (!mended) return false;
  change(words.finish.fixCast, finishEdit()({ [mended.channel]: mended.points }));
  say(words.finish.castFixed(mended.channel));
  return true;
}

/** Adds a coat on top of all others. */
export function addOnTop(source: SourceInput, look?: FirstLook): void {
  const { piece, choose, addCoat, openFacet } = useBench.getState();
  choose(piece?.coats.at(-1)?.id ?? null);
  addCoat(source, look);
  openFacet('finish');
  say(words.finish.addedOnTop(look?.name ?? sourceName(source)));
}
