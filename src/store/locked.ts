import { innerCoats, everyCoat } from '../core/piece/groups';
import type { Coat, Piece } from '../core/piece/schema';
import { lockedCoats } from '../core/piece/stacking';

/** What may change of a locked coat: whether it is shown, and the lock itself. What lies in a group is asked about coat by coat. */
const FREE: readonly (keyof Coat)[] = ['visible', 'locked'];

const idsIn = (coat: Coat) =>
  innerCoats(coat)
    .map(({ id }) => id)
    .join();

function isChanged(before: Coat, after: Coat): boolean {
  const keys = new Set([...Object.keys(before), ...Object.keys(after)] as (keyof Coat)[]);
  return [...keys].some((key) => {
    if (FREE.includes(key) || before[key] === after[key]) return false;
    return key !== 'source' || before.source.kind !== 'group' || idsIn(before) !== idsIn(after);
  });
}

/** Whether a change would alter or remove a coat that is locked. Coats that move with the photo when it is cropped or turned do not count. */
export function breaksLock(before: Piece, after: Piece): boolean {
  const locked = lockedCoats(before.coats);
  if (locked.length === 0 || before.ready !== after.ready) return false;
  const now = new Map(everyCoat(after.coats).map((coat) => [coat.id, coat]));
  return locked.some((coat) => {
    const other = now.get(coat.id);
    return !other || isChanged(coat, other);
  });
}
