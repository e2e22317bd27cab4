/**
 * Whether a search finds something by its words: every word that was typed is a part of them, in any order. An empty search finds everything.
 *
 * @param words what it says of itself: name, help, other names
 */
export function isFoundBy(words: readonly (string | undefined)[], typed: string): boolean {
  const text = words.join(' ').toLowerCase();
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
