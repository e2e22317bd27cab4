import type { Coat, Piece } from './schema';

/** What a coat starts from when it is a group. */
export interface GroupSource {
  kind: 'group';
  /** Bottom to top. */
  coats: readonly Coat[];
  isolated: boolean;
}

type Holder = Pick<Coat, 'source'>;

/** What a group starts from; null for a coat that is none. */
export const groupOf = (coat: Holder | null | undefined): GroupSource | null =>
  coat?.source.kind === 'group' ? (coat.source as unknown as GroupSource) : null;

/** The coats in a group; none for a coat that is no group. */
export const innerCoats = <C extends Holder>(coat: C): readonly C[] => (groupOf(coat)?.coats ?? []) as unknown as readonly C[];

/** Whether a group's coats lie on nothing before the group is laid on what is below. */
export const isIsolated = (coat: Pick<Coat, 'source' | 'blend'>): boolean => groupOf(coat)?.isolated === true || coat.blend !== 'normal';

/** The group with other coats in it. */
export const withInner = <C extends Holder>(group: C, coats: readonly Holder[]): C => ({ ...group, source: { ...group.source, coats } });

/** All coats, those in groups too, each group before its coats. */
export const everyCoat = <C extends Holder>(coats: readonly C[]): C[] => coats.flatMap((coat) => [coat, ...everyCoat(innerCoats(coat))]);

/** How deep groups lie in each other: 1 for coats without groups. */
export const depthOf = (coats: readonly Holder[]): number => 1 + Math.max(0, ...coats.map((coat) => (groupOf(coat) ? depthOf(innerCoats(coat)) : 0)));

/** Changes every coat, those in groups first. What is not changed stays the same object. */
export function mapCoats<C extends Holder>(coats: readonly C[], change: (coat: C) => C): C[] {
  return coats.map((coat) => {
    const inner = innerCoats(coat);
    const next = mapCoats(inner, change);
    return change(next.every((one, i) => one === inner[i]) ? coat : withInner(coat, next));
  });
}

/** Leaves out coats wherever they lie; a group stays when it has become empty. */
export function filterCoats<C extends Holder>(coats: readonly C[], keep: (coat: C) => boolean): C[] {
  return coats.filter(keep).map((coat) => {
    const inner = innerCoats(coat);
    const next = filterCoats(inner, keep);
    return next.length === inner.length && next.every((one, i) => one === inner[i]) ? coat : withInner(coat, next);
  });
}

/** The list that a coat lies in. */
export interface Level {
  /** Bottom to top. */
  coats: readonly Coat[];
  at: number;
  /** The groups that it lies in, the outermost first. */
  groups: readonly Coat[];
}

/** Where a coat lies; null when there is none with that id. */
export function levelOf(coats: readonly Coat[], id: string | null, groups: readonly Coat[] = []): Level | null {
  const at = coats.findIndex((coat) => coat.id === id);
  if (at >= 0) return { coats, at, groups };
  for (const coat of coats) {
    const found = groupOf(coat) && levelOf(innerCoats(coat), id, [...groups, coat]);
    if (found) return found;
  }
  return null;
}

/** A coat by its id, in groups too; null when there is none. */
export function findCoat({ coats }: Pick<Piece, 'coats'>, id: string | null | undefined): Coat | null {
  const level = id ? levelOf(coats, id) : null;
  return level && level.coats[level.at];
}

/** Changes the list that a coat lies in, and with it the groups around it. */
export function changeLevel(coats: readonly Coat[], id: string, change: (coats: readonly Coat[], at: number) => readonly Coat[]): readonly Coat[] {
  const at = coats.findIndex((coat) => coat.id === id);
  if (at >= 0) return change(coats, at);
  for (const [i, coat] of coats.entries()) {
    if (!groupOf(coat)) continue;
    const inner = innerCoats(coat);
    const next = changeLevel(inner, id, change);
    if (next !== inner) return [...coats.slice(0, i), withInner(coat, next), ...coats.slice(i + 1)];
  }
  return coats;
}
