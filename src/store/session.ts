import { followTo, putOnBench, useBench } from './bench';
import { loadHistory } from './history';
import { takeUpLeft } from './leaving';
import { complain } from './notices';
import { cardPicture, loadPiece, storedChange } from './records';
import { beginSaving, flush } from './saving';
import { hearTabs, holdPiece, letGo, takeOver } from './tabs';

/** Another tab has taken the piece over: what is here is written by it from now on. */
const lost = (): void => useBench.setState({ follows: true, draft: null });

/** Counts openings, so that leaving one does not end the next. */
let visits = 0;

/**
 * Opens a piece on the bench. It is read from the store, unless what is on the bench is the same state: then its steps of undo and redo stay.
 * @returns false when there is no such piece
 * @throws Unreadable when its record is damaged
 */
export async function openPiece(id: string): Promise<boolean> {
  visits++;
  await flush();
  await takeUpLeft();
  const holds = await holdPiece(id, lost);
  const now = useBench.getState();
  if (now.piece?.id === id && !now.follows && now.saved === 'saved' && (await storedChange(id)) === now.piece.changed) {
    useBench.setState({ follows: !holds });
    return true;
  }
  const [piece, card] = await Promise.all([loadPiece(id), cardPicture(id)]);
  const past = piece ? await loadHistory(piece) : [];
  beginSaving(piece);
  putOnBench(piece, { card, past, follows: !holds });
  return piece !== null;
}

/** The bench is left: what is not saved is written, then other tabs may work on the piece. */
export function leaveBench(): void {
  const visit = visits;
  void flush().then(() => {
    if (visit === visits) letGo();
  });
}

/** Takes the piece on the bench over from another tab. */
export async function workHere(): Promise<void> {
  const { piece } = useBench.getState();
  if (!piece) return;
  await takeOver(piece.id, lost);
  await follow();
  useBench.setState({ follows: false });
}

/** Reads the piece on the bench again, as another tab has saved it. */
async function follow(): Promise<void> {
  const { piece } = useBench.getState();
  const next = piece && (await loadPiece(piece.id));
  if (!next || next.changed === piece.changed) return;
  const past = await loadHistory(next);
  if (!useBench.getState().follows) return;
  beginSaving(next);
  followTo(next, past);
}

hearTabs((message) => {
  const { piece, follows } = useBench.getState();
  if (message.kind === 'list' || message.id !== piece?.id) return;
  if (message.kind === 'saved' && follows) void follow().catch(complain);
  // The other tab wants to work on it: what is not saved is written, then it may.
  if (message.kind === 'wanted' && !follows) void flush(false).then(giveAway, complain);
});

/** Lets another tab have the piece. */
function giveAway(): void {
  lost();
  letGo();
}
