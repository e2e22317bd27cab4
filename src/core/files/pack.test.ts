import { strToU8, zipSync } from 'fflate';
import { packSchema, readPack, writePack } from './pack';

const picture = Uint8Array.from({ length: 400 }, (_, i) => (i * 37) % 251);
const list = (more: object = {}) =>
  packSchema.parse({
    dermatex: 1,
    name: 'Store papers',
    maker: 'Skerry',
    licence: 'CC0',
    materials: [{ file: 'a/one.jpg', name: 'One', family: 'paper' }],
    ...more,
  });
const zip = (entries: Record<string, Uint8Array>) => zipSync(entries, { level: 9 });
const json = (value: unknown) => strToU8(JSON.stringify(value));

it('a pack comes back as it was given out', () => {
  const bytes = writePack(
    list({ materials: [{ file: 'a/one.jpg', name: 'One', family: 'paper', fitting: { left: 0.1, seamless: true } }] }),
    new Map([['a/one.jpg', picture]]),
  );
  const { pack, pictures } = readPack(bytes, 'pack.zip');
  expect(pack).toMatchObject({ name: 'Store papers', maker: 'Skerry', licence: 'CC0' });
  expect(pack.materials[0]).toMatchObject({ name: 'One', family: 'paper', fitting: { left: 0.1, seamless: true, even: 0 } });
  expect([...pictures.get('a/one.jpg')!]).toEqual([...picture]);
});

it('reads a zip that another program made (bytes written out by hand, APPNOTE 6.3.3, stored)', () => {
  // One stored file "x.png" of three bytes; CRC-32 of 01 02 03 is 0x55BC801D.
  const name = [0x78, 0x2e, 0x70, 0x6e, 0x67];
  const sizes = [0x1d, 0x80, 0xbc, 0x55, 3, 0, 0, 0, 3, 0, 0, 0];
  const local = [0x50, 0x4b, 3, 4, 10, 0, 0, 0, 0, 0, 0, 0, 0x21, 0, ...sizes, 5, 0, 0, 0, ...name, 1, 2, 3];
  const central = [
    0x50,
    0x4b,
    1,
    2,
    10,
    0,
    10,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0x21,
    0,
    ...sizes,
    5,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    ...name,
  ];
  const end = [0x50, 0x4b, 5, 6, 0, 0, 0, 0, 1, 0, 1, 0, central.length, 0, 0, 0, local.length, 0, 0, 0, 0, 0];
  const { pack, pictures } = readPack(Uint8Array.from([...local, ...central, ...end]), 'From elsewhere.zip');
  expect(pack).toMatchObject({ name: 'From elsewhere', materials: [{ file: 'x.png', name: 'x' }] });
  expect([...pictures.get('x.png')!]).toEqual([1, 2, 3]);
});

it.each([
  ['is no zip', () => strToU8('hello'), 'is not a zip file, or is damaged'],
  ['is cut short', () => writePack(list(), new Map([['a/one.jpg', picture]])).subarray(0, 300), 'is not a zip file, or is damaged'],
  ['names a place outside', () => zip({ '../../evil.png': picture, 'pack.json': json(list()) }), 'outside itself'],
  ['names a whole path', () => zip({ '/etc/one.png': picture }), 'outside itself'],
  ['swells', () => zip({ 'one.png': new Uint8Array(8e6) }), 'many times its size'],
  [
    'holds too many files',
    () => zip(Object.fromEntries(Array.from({ length: 601 }, (_, i) => [`${i}.txt`, picture.subarray(0, 3)]))),
    'more than 600 files',
  ],
  ['has a list that is no JSON', () => zip({ 'pack.json': strToU8('{'), 'a/one.jpg': picture }), 'is not JSON'],
  [
    'has a list with a family that is not known',
    () => zip({ 'pack.json': json({ ...list(), materials: [{ file: 'a/one.jpg', name: 'x', family: 'soup' }] }), 'a/one.jpg': picture }),
    'This is not a pack',
  ],
  ['lists a picture that is missing', () => zip({ 'pack.json': json(list()) }), 'lists a picture that is not in it (a/one.jpg)'],
  ['holds no pictures', () => zip({ 'read me.txt': picture }), 'holds no PNG'],
])('a pack that %s is refused in one sentence', (_name, bytes, says) => {
  let message = '';
  try {
    readPack(bytes(), 'bad.zip');
  } catch (error) {
    message = (error as Error).message;
  }
  expect(message).toContain(says);
  expect(message.match(/[.!?](\s|$)/g)).toHaveLength(1);
});

it('a pack is not given out without its pictures or its name', () => {
  expect(() => writePack(list(), new Map())).toThrow('is missing');
  expect(() => writePack({ ...list(), name: '' }, new Map([['a/one.jpg', picture]]))).toThrow('at name');
});

it('refuses a picture that is not what was packed (CRC-32 of its directory)', () => {
  const bytes = zip({ 'pack.json': json(list()), 'a/one.jpg': picture });
  expect(readPack(bytes, 'pack.zip').pictures.size).toBe(1);
  const stored = writePack(list(), new Map([['a/one.jpg', picture]]));
  const at = Buffer.from(stored).indexOf(Buffer.from(picture.subarray(0, 40)));
  expect(at).toBeGreaterThan(0);
  stored[at + 100] ^= 1;
  expect(() => readPack(stored, 'pack.zip')).toThrow('“pack.zip” is damaged: a/one.jpg is not what was packed; fetch it again from where it came.');
});

it('says how many pictures are too many instead of leaving some out', () => {
  const many = Object.fromEntries(Array.from({ length: 400 }, (_, i) => [`${i}.png`, picture]));
  expect(() => readPack(zip(many), 'many.zip')).toThrow('“many.zip” holds 400 pictures; a pack may have 300. Split it into several.');
});
