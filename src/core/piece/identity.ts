const numbers = new WeakMap<object, number>();
let last = 0;

/** A number that stays with an object: parts of a piece never change, so it names what they say. */
export function identify(part: object): number {
  let id = numbers.get(part);
  if (!id) numbers.set(part, (id = ++last));
  return id;
}
