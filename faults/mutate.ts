type Random = () => number;

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];
const at = (random: Random, length: number) => Math.floor(random() * length);

/** Ways to damage a file, after the ideas of fuzzers: bits, runs, cuts, doublings, large numbers where sizes may be. */
const ways: ((bytes: Buffer, random: Random) => Buffer)[] = [
  (b, r) => ((b[at(r, b.length)] ^= 1 << at(r, 8)), b),
  (b, r) => (b.fill(at(r, 256), at(r, b.length), at(r, b.length)), b),
  (b, r) => b.subarray(0, at(r, b.length)),
  (b, r) => {
    const from = at(r, b.length);
    return Buffer.concat([b.subarray(0, from), b.subarray(from + at(r, 64))]);
  },
  (b, r) => {
    const from = at(r, b.length);
    return Buffer.concat([b.subarray(0, from), b.subarray(from, from + at(r, 256)), b.subarray(from)]);
  },
  (b, r) => (b.writeUInt32BE(pick(r, [0, 1, 0x7fffffff, 0xffffffff, 0x80000000, 65536]), at(r, Math.max(1, Math.min(b.length, 64) - 4))), b),
  (b, r) => (b.writeUInt16BE(pick(r, [0, 1, 0x7fff, 0xffff, 0xffd9, 0xffda]), at(r, Math.max(1, b.length - 2))), b),
  (b, r) => Buffer.concat([b.subarray(0, 2), Buffer.alloc(at(r, 40), 0xff), b.subarray(2)]),
  (b, r) => {
    for (let i = 0; i < 20; i++) b[at(r, b.length)] = at(r, 256);
    return b;
  },
];

/** A damaged copy of a file. */
export function damaged(bytes: Buffer, random: Random): Buffer {
  let copy = Buffer.from(bytes);
  for (let i = 0; i < 1 + at(random, 3) && copy.length > 8; i++) copy = Buffer.from(pick(random, ways)(copy, random));
  return copy;
}

const oddities: unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  -1e308,
  2147483648,
  1e-300,
  '',
  'x'.repeat(5000),
  '../../etc/passwd',
  '/dev/zero',
  [],
  {},
  [[]],
  '__proto__',
  'photo',
  '\0',
];

/** A copy of JSON data in which something is another thing, missing, or one too many. */
export function oddJson(data: unknown, random: Random): unknown {
  const copy: unknown = structuredClone(data);
  for (let n = 1 + at(random, 3); n > 0; n--) {
    let node = copy as Record<string, unknown>;
    for (let depth = at(random, 7); depth > 0; depth--) {
      const next = Object.values(node).filter((value): value is Record<string, unknown> => typeof value === 'object' && value !== null);
      if (next.length === 0) break;
      node = pick(random, next);
    }
    const keys = Object.keys(node);
    const key = keys.length > 0 ? pick(random, keys) : 'x';
    const kind = at(random, 4);
    if (kind === 0) delete node[key];
    else if (kind === 1) node[`${key}2`] = pick(random, oddities);
    else node[key] = pick(random, oddities);
  }
  return copy;
}
