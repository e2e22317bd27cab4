import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { runHere } from './testing';

jest.setTimeout(120_000);

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-batch-'));
const file = (...names: string[]) => path.join(folder, ...names);
const look = file('look.json');
const batch = (out: string, ...more: string[]) => runHere(['batch', '--recipe', look, '--out', file(out), ...more]);
const photos = ['a.png', 'b.jpg', 'c.webp', 'd.png'];
const named = () => photos.map((name) => file('photos', name));
/** Names of the results in a folder. */
const results = (out: string) => readdirSync(file(out)).filter((name) => !name.startsWith('.'));

beforeAll(async () => {
  mkdirSync(file('photos'));
  // Photos of several shapes, so that the look is placed differently on each.
  for (const [i, name] of photos.entries()) {
    const [width, height] = [120 + 40 * i, 160 - 20 * i];
    const raw = Buffer.from(Array.from({ length: width * height }, (_, k) => [(k % width) * (i + 1), Math.floor(k / width), 40 * i]).flat());
    await sharp(raw, { raw: { width, height, channels: 3 } }).toFile(file('photos', name));
  }
  await sharp({ create: { width: 40, height: 40, channels: 3, background: '#c0a080' } })
    .png()
    .toFile(file('cloud.png'));
  writeFileSync(
    look,
    JSON.stringify({
      dermatex: 1,
      name: 'Old card',
      ready: { tone: { exposure: 0.3 }, spots: [{ points: [[0.3, 0.4]], size: 30 }] },
      coats: [
        { source: { kind: 'material', id: 'paper.cold-press', seed: 3, params: {} }, blend: 'multiply', strength: 0.8 },
        { source: { kind: 'picture', file: 'cloud.png' }, lay: { fit: 'stretch' }, blend: 'soft-light', treatments: [{ kind: 'blur', radius: 6 }] },
        { source: { kind: 'grain', seed: 5 }, blend: 'overlay', strength: 0.5 },
      ],
    }),
  );
});

it('makes of each photo what render makes of it, to the byte, whatever was drawn before', async () => {
  const { status, out, err } = await batch('all', ...named());
  expect([status, err]).toEqual([0, '']);
  expect(out.trim().split('\n').pop()).toBe('4 made, 0 there already, 0 failed.');
  expect(results('all').sort()).toEqual(photos);
  for (const name of photos) {
    expect((await runHere(['render', '--photo', file('photos', name), '--recipe', look, '--out', file(`one-${name}`)])).status).toBe(0);
    expect(readFileSync(file('all', name)).equals(readFileSync(file(`one-${name}`)))).toBe(true);
  }
});

it('is taken up where it broke off: what is there is left, what is missing or was made from something else is made', async () => {
  const before = statSync(file('all', 'a.png')).mtimeMs;
  // A job that broke off leaves no half results under their name, but may leave some out.
  truncateSync(file('all', '.dermatex', 'b.jpg.made'), 10);
  await sharp({ create: { width: 90, height: 70, channels: 3, background: '#336699' } })
    .png()
    .toFile(file('photos', 'd.png'));
  const { out } = await batch('all', ...named());
  expect(out.trim().split('\n').pop()).toBe('2 made, 2 there already, 0 failed.');
  expect(statSync(file('all', 'a.png')).mtimeMs).toBe(before);
  expect(await sharp(file('all', 'd.png')).metadata()).toMatchObject({ width: 90, height: 70 });
  // Other settings make other results.
  const { out: half } = await batch('all', '--scale', '0.5', ...named());
  expect(half.trim().split('\n').pop()).toBe('4 made, 0 there already, 0 failed.');
});

it('goes on after a bad file, names it, and ends with 1', async () => {
  writeFileSync(file('photos', 'letter.png'), 'Dear keeper');
  const { status, out, err } = await batch('bad', ...named(), file('photos', 'letter.png'), file('photos', 'nowhere.png'));
  expect(status).toBe(1);
  expect(err.trim().split('\n').sort()).toEqual([
    'letter.png: “letter.png” is not a PNG, JPEG, WebP, AVIF or TIFF picture; choose one of those.',
    `nowhere.png: There is no file ${file('photos', 'nowhere.png')} that can be read.`,
  ]);
  expect(out.trim().split('\n').pop()).toBe('4 made, 0 there already, 2 failed.');
  expect(results('bad').sort()).toEqual(photos);
});

it('does its part of a job: the parts together are the whole, and no photo is done twice', async () => {
  const made = await Promise.resolve([1, 2, 3]).then(async (parts) => {
    const lists: string[][] = [];
    for (const part of parts) {
      expect((await batch(`part-${part}`, '--shard', `${part}/3`, ...named())).status).toBe(0);
      lists.push(results(`part-${part}`));
    }
    return lists;
  });
  expect(made).toEqual([['a.png', 'd.png'], ['b.jpg'], ['c.webp']]);
});

it('names and formats results as it is told, and takes all pictures of a folder', async () => {
  const { status } = await batch('named', '--name', '{number} {look} {folder}-{name}', '--format', 'jpg', '--shard', '2/5', file('photos'));
  expect(status).toBe(0);
  expect(results('named')).toEqual(['002 Old card photos-b.jpg']);
  const deep = await batch('deep', '--bits', '16', file('photos', 'b.jpg'));
  expect(deep.status).toBe(0);
  expect(await sharp(file('deep', 'b.png')).metadata()).toMatchObject({ depth: 'ushort' });
});

const parallel = '/usr/bin/parallel';
// npm test installs it.
(existsSync(parallel) ? it : it.skip)('is spread over processes by GNU parallel, which share a folder of results', () => {
  const root = process.env.DERMATEX_ROOT ?? process.cwd();
  const command = [
    process.execPath,
    path.join(root, 'build/cli-main.mjs'),
    'batch',
    '--recipe',
    look,
    '--out',
    file('spread'),
    '--workers',
    '1',
    '--shard',
    '{}/3',
  ];
  const ran = () =>
    spawnSync(parallel, ['--will-cite', '--halt', 'never', ...command, ...named(), ':::', '1', '2', '3'], {
      encoding: 'utf8',
      env: { ...process.env, DERMATEX_ROOT: root },
    });
  const first = ran();
  expect([first.status, first.stderr]).toEqual([0, '']);
  expect(results('spread').sort()).toEqual(photos);
  for (const name of photos) expect(readFileSync(file('spread', name)).equals(readFileSync(file('bad', name)))).toBe(true);
  // Called again it makes nothing twice.
  expect(ran().stdout.match(/^0 made/gm)).toHaveLength(3);
});

it.each([
  [['--recipe', 'LOOK', '--out', 'OUT'], 'batch needs --recipe, --out and photos.'],
  [['--recipe', 'LOOK', '--out', 'OUT', '--shard', '4/3', 'A'], '--shard is a part and how many there are, such as 3/8, not 4/3.'],
  [['--recipe', 'LOOK', '--out', 'OUT', '--format', 'gif', 'A'], '--format is png, jpg, webp, tif, not gif.'],
  [['--recipe', 'LOOK', '--out', 'OUT', '--name', '{date}', 'A'], '--name may hold {name}, {folder}, {number}, {look}, not {date}.'],
  [['--recipe', 'LOOK', '--out', 'OUT', '--workers', '0', 'A'], '--workers is a whole number from 1 to 64, not 0.'],
  [['--recipe', 'LOOK', '--out', 'PHOTOS', 'A'], 'A would be replaced by its own result; choose another --out or --name.'],
  [
    ['--recipe', 'LOOK', '--out', 'OUT', 'A', 'A'],
    'A and A would both become a.png; tell them apart with --name, such as "{folder}-{name}" or "{number}".',
  ],
  [['--recipe', 'A', '--out', 'OUT', 'A'], 'This file is not a recipe: it does not hold JSON.'],
])('%j is refused in one sentence, and nothing is made', async (args, says) => {
  const [a, out] = [file('photos', 'a.png'), file('nothing')];
  const full = args.map((arg) => ({ LOOK: look, OUT: out, PHOTOS: file('photos'), A: a })[arg] ?? arg);
  const { status, err } = await runHere(['batch', ...full]);
  expect([status, err.trim().replaceAll(a, 'A')]).toEqual([2, says]);
  expect(existsSync(out)).toBe(false);
});
