import type { GraphNode } from './node';

/** Longer lists are known by which object they are. Parts of a piece never change, so this can only miss an equal one, never mistake another for it. */
const LONG = 64;

const numbers = new WeakMap<object, number>();
let last = 0;

/** A number that stays with an object as long as it lives. */
export function identify(part: object): number {
  let id = numbers.get(part);
  if (!id) numbers.set(part, (id = ++last));
  return id;
}

const prints = new WeakMap<object, string>();

/** A string that is equal for values of equal content. Objects must not change once they have been asked about. */
export function fingerprint(value: unknown): string {
  if (typeof value !== 'object' || value === null) return value === undefined ? '' : JSON.stringify(value);
  const known = prints.get(value);
  if (known !== undefined) return known;
  const print = Array.isArray(value) ? printOfList(value) : printOfObject(value as Record<string, unknown>);
  prints.set(value, print);
  return print;
}

function printOfList(list: readonly unknown[]): string {
  return list.length > LONG ? `#${identify(list)}` : `[${list.map(fingerprint).join()}]`;
}

function printOfObject(object: Record<string, unknown>): string {
  const names = Object.keys(object)
    .filter((name) => object[name] !== undefined)
    .sort();
  return `{${names.map((name) => `${JSON.stringify(name)}:${fingerprint(object[name])}`).join()}}`;
}

/** Most texts that numbers are remembered for. A text that was forgotten gets another number: what was kept under the old one is drawn again. */
const REMEMBERED = 50_000;
const keys = new Map<string, number>();
let lastKey = 0;

function numberOf(text: string): number {
  let key = keys.get(text);
  if (key === undefined) {
    if (keys.size >= REMEMBERED) keys.delete(keys.keys().next().value as string);
    key = ++lastKey;
    keys.set(text, key);
  }
  return key;
}

/**
 * The key of a node: the one way in which keys of what is kept between drawings are made. It follows from the node's operation and parameters, from the
 * keys of the nodes that it reads, from the keys of what was loaded for it, and from the frame that it is drawn in.
 *
 * @param inputs - Keys of the nodes that it reads, by name.
 * @param resources - Keys of what was loaded for it, by name.
 * @param frame - The size of the piece; places and lengths follow from it.
 */
export function nodeKey(
  { op, params }: Pick<GraphNode, 'op' | 'params'>,
  inputs: Readonly<Record<string, number>>,
  resources: Readonly<Record<string, string>>,
  frame: string,
): number {
  const named = (entries: Readonly<Record<string, unknown>>) =>
    Object.keys(entries)
      .sort()
      .map((name) => `${name}=${String(entries[name])}`)
      .join();
  return numberOf(`${op}|${fingerprint(params)}|${named(inputs)}|${named(resources)}|${frame}`);
}
