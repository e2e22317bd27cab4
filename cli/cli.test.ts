import { spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { runHere } from './testing';

// Commands run in this process; the last tests start processes of their own.
jest.setTimeout(60_000);

const root = process.env.DERMATEX_ROOT ?? process.cwd();
const main = path.join(root, 'build/cli-main.mjs');
const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-'));
const file = (name: string) => path.join(folder, name);
const env = { ...process.env, DERMATEX_ROOT: root };
const run = async (...args: string[]) => {
  const { status, out, err } = await runHere(args);
  expect([status, err]).toEqual([0, '']);
  return out;
};
const fails = async (...args: string[]) => {
  const { status, err } = await runHere(args);
  expect(status).toBe(2);
  expect(err.trim().split('\n')).toHaveLength(1);
  return err.trim();
};
const recipe = (name: string, coats: object[], more: object = {}) => {
  writeFileSync(file(name), JSON.stringify({ dermatex: 1, name, coats, ...more }));
  return file(name);
};
const pixels = async (name: string) => (await sharp(file(name)).removeAlpha().raw().toBuffer()) as Buffer;

beforeAll(async () => {
  const W = 240;
  const H = 160;
  const raw = Buffer.from(Array.from({ length: W * H }, (_, i) => [i % W, Math.floor(i / W), 128]).flat());
  await sharp(raw, { raw: { width: W, height: H, channels: 3 } })
    .png()
    .toFile(file('photo.png'));
  await sharp({ create: { width: 50, height: 50, channels: 3, background: '#808080' } })
    .png()
    .toFile(file('grey.png'));
});

it('renders grey in overlay as the photo itself (common practice)', async () => {
  await run(
    'render',
    '--photo',
    file('photo.png'),
    '--recipe',
    recipe('grey.json', [{ source: { kind: 'picture', file: 'grey.png' }, lay: { fit: 'stretch' }, blend: 'overlay' }]),
    '--out',
    file('grey-out.png'),
  );
  const [a, b] = [await pixels('photo.png'), await pixels('grey-out.png')];
  expect(Math.max(...a.map((v, i) => Math.abs(v - b[i])))).toBeLessThanOrEqual(1);
});

it('renders multiply with a mask as the formula says', async () => {
  const mask = { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.5, rx: 0.2, ry: 0.2, feather: 0, density: 1, turn: 0 }] };
  await run(
    'render',
    '--photo',
    file('photo.png'),
    '--recipe',
    recipe('m.json', [{ source: { kind: 'colour', colour: '#808080' }, blend: 'multiply', mask }]),
    '--out',
    file('m.png'),
  );
  const b = await pixels('m.png');
  const at = (x: number, y: number) => b[(y * 240 + x) * 3];
  expect(at(20, 10)).toBe(Math.round((20 * 128) / 255));
  expect(at(120, 80)).toBe(120);
});

it('scales, measures and checks', async () => {
  const r = recipe('ok.json', [{ source: { kind: 'material', id: 'paper.cold-press', seed: 7, params: { tooth: 1.2 } }, blend: 'multiply' }]);
  await run('render', '--photo', file('photo.png'), '--recipe', r, '--out', file('half.png'), '--scale', '0.5');
  expect(await sharp(file('half.png')).metadata()).toMatchObject({ width: 120, height: 80 });
  expect(await run('check', r)).toBe('ok.json is a valid recipe with 1 coat.\n');
  expect(await run('measure', file('photo.png'), file('photo.png'))).toMatch(/^ciede2000 mean 0\.0000 p95 0\.0000 max 0\.0000 ssim 1\.000000/);
});

it('lists and makes materials of any size', async () => {
  expect((await run('materials')).trim().split('\n').length).toBeGreaterThanOrEqual(45);
  await run('material', 'paper.aged', '--seed', '4', '--size', '300x190', '--out', file('aged.png'));
  await run('material', 'cloth.linen', '--seed', '4', '--size', '111x70', '--out', file('linen.png'));
  expect(await sharp(file('aged.png')).metadata()).toMatchObject({ width: 300, height: 190, channels: 3 });
  expect(await sharp(file('linen.png')).metadata()).toMatchObject({ width: 111, height: 70 });
});

it('keeps the earlier result when a new one cannot be written', async () => {
  writeFileSync(file('kept.png'), 'before');
  const folder2 = file('closed');
  expect(await fails('render', '--photo', file('photo.png'), '--recipe', recipe('r.json', []), '--out', path.join(folder2, 'o.png'))).toMatch(
    /cannot be written; does its folder exist/,
  );
  expect(existsSync(folder2)).toBe(false);
  expect(readFileSync(file('kept.png'), 'utf8')).toBe('before');
  await run('render', '--photo', file('photo.png'), '--recipe', recipe('r.json', []), '--out', file('kept.png'));
  expect(existsSync(`${file('kept.png')}.part`)).toBe(false);
});

it('writes JPEG and WebP of the same picture', async () => {
  const plain = recipe('plain.json', []);
  for (const ending of ['jpg', 'webp']) {
    await run('render', '--photo', file('photo.png'), '--recipe', plain, '--out', file(`same.${ending}`));
    const text = await run('measure', file('photo.png'), file(`same.${ending}`));
    expect(Number(/mean ([\d.]+)/.exec(text)?.[1])).toBeLessThan(1.5);
    expect(await sharp(file(`same.${ending}`)).metadata()).toMatchObject({ width: 240, height: 160, channels: 3 });
  }
});

it('readies the photo as a recipe says: quarter turn, crop, grey spot, exposure', async () => {
  const look = (ready: object) => recipe('ready.json', [], { ready });
  await run('render', '--photo', file('photo.png'), '--recipe', look({ crop: { x: 0.25, y: 0.5, w: 0.5, h: 0.25 } }), '--out', file('cut.png'));
  expect(await sharp(file('cut.png')).metadata()).toMatchObject({ width: 120, height: 40 });
  const cut = await pixels('cut.png');
  expect([cut[0], cut[1], cut[2]]).toEqual([60, 80, 128]);
  await run('render', '--photo', file('photo.png'), '--recipe', look({ quarter: 1 }), '--out', file('quarter.png'));
  const turned = await sharp(file('photo.png')).rotate(90).raw().toBuffer();
  expect(Buffer.compare(turned, await pixels('quarter.png'))).toBe(0);
  await run('render', '--photo', file('photo.png'), '--recipe', look({ flip: true }), '--out', file('flip.png'));
  expect(Buffer.compare(await sharp(file('photo.png')).flop().raw().toBuffer(), await pixels('flip.png'))).toBe(0);
  await run('render', '--photo', file('photo.png'), '--recipe', look({ whiteBalance: { neutral: [0.5, 0.2] } }), '--out', file('grey-spot.png'));
  const balanced = await pixels('grey-spot.png');
  const spot = (32 * 240 + 120) * 3;
  expect(Math.max(...balanced.slice(spot, spot + 3)) - Math.min(...balanced.slice(spot, spot + 3))).toBeLessThanOrEqual(2);
  await run('render', '--photo', file('photo.png'), '--recipe', look({ tone: { exposure: 0.5, shadows: 0.3 } }), '--out', file('lit.png'));
  const lit = await pixels('lit.png');
  expect(lit[spot + 2]).toBeGreaterThan(145);
  expect(await fails('render', '--photo', file('photo.png'), '--recipe', look({ crop: { w: -1 } }), '--out', file('no.png'))).toMatch(/ready.crop.w/);
});

it('renders the example of the design’s §7, and each of its coats does what the example says', async () => {
  const ready = {
    quarter: 0,
    flip: false,
    crop: { x: 0.1, y: 0, w: 0.8, h: 0.6, turn: 2.5 },
    whiteBalance: { neutral: [0.5, 0.2] },
    tone: { exposure: 0.5, shadows: 0.3 },
  };
  const sheet = {
    name: 'Sheet',
    source: { kind: 'material', id: 'paper.cold-press', seed: 7, params: {} },
    lay: { fit: 'cover', scale: 1.2, x: 0, y: 0, turn: 90, flipX: false, flipY: false },
    // The example has a brightness of 0.1, at which this paper is white all over and multiplying by it changes nothing.
    treatments: [{ kind: 'tone', brightness: -0.1, contrast: 0.2, saturation: -0.4, hue: 0, invert: false }],
    blend: 'multiply',
    strength: 0.35,
    limits: [0, 0, 1, 1],
    mask: { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.4, rx: 0.2, ry: 0.3, turn: 0, feather: 1, density: 0.8 }] },
    guards: 1,
  };
  const picture = { source: { kind: 'picture', file: 'grey.png' }, lay: { fit: 'stretch' }, blend: 'soft-light', strength: 0.9 };
  const colour = { source: { kind: 'colour', colour: '#808080' }, blend: 'overlay', strength: 1 };
  const drawn = async (name: string, coats: object[]) => {
    await run('render', '--photo', file('photo.png'), '--recipe', recipe(`${name}.json`, coats, { ready }), '--out', file(`${name}.png`));
    return pixels(`${name}.png`);
  };
  const [bare, one, all] = [await drawn('bare', []), await drawn('one', [sheet]), await drawn('all', [sheet, picture, colour])];
  expect(await sharp(file('all.png')).metadata()).toMatchObject({ width: 192, height: 96 });
  // Mid grey changes nothing in soft light and overlay (common practice; W3C Compositing and Blending Level 1, §9).
  expect(Math.max(...all.map((v, i) => Math.abs(v - one[i])))).toBeLessThanOrEqual(1);
  // Multiply only darkens, by as much as the coat's strength lets a white sheet; least in the middle of the ellipse.
  const loss = (x: number, y: number) => {
    let sum = 0;
    for (let j = -4; j < 4; j++)
      for (let i = -4; i < 4; i++) for (let c = 0; c < 3; c++) sum += bare[((y + j) * 192 + x + i) * 3 + c] - one[((y + j) * 192 + x + i) * 3 + c];
    return sum / 192;
  };
  expect(Math.min(...bare.map((v, i) => v - one[i]))).toBeGreaterThanOrEqual(-1);
  const [middle, corner] = [loss(96, 38), loss(180, 84)];
  expect(corner).toBeGreaterThan(3);
  expect(middle).toBeLessThan(0.5 * corner);
});

it('measures under a mask only', async () => {
  await sharp({ create: { width: 240, height: 160, channels: 3, background: '#000' } })
    .composite([{ input: { create: { width: 50, height: 160, channels: 3, background: '#fff' } }, left: 0, top: 0 }])
    .png()
    .toFile(file('mask.png'));
  const half = recipe('half.json', [
    {
      source: { kind: 'colour', colour: '#000000' },
      mask: { start: 'none', parts: [{ kind: 'ellipse', op: 'add', cx: 0.9, cy: 0.5, rx: 0.05, ry: 0.1, feather: 0, density: 1, turn: 0 }] },
    },
  ]);
  await run('render', '--photo', file('photo.png'), '--recipe', half, '--out', file('right.png'));
  expect(await run('measure', file('photo.png'), file('right.png'))).not.toMatch(/max 0\.0000/);
  expect(await run('measure', file('photo.png'), file('right.png'), '--mask', file('mask.png'))).toMatch(/mean 0\.0000 p95 0\.0000 max 0\.0000/);
});

it('refuses bad input with one line, exit code 2 and no file', async () => {
  const out = file('never.png');
  const good = recipe('good.json', []);
  expect(await fails('render', '--photo', file('nowhere.png'), '--recipe', good, '--out', out)).toMatch(/no file/);
  expect(await fails('render', '--photo', good, '--recipe', good, '--out', out)).toMatch(/not a PNG/);
  expect(await fails('render', '--photo', file('photo.png'), '--recipe', recipe('bad.json', [{ source: { kind: 'magic' } }]), '--out', out)).toMatch(
    /not a recipe/,
  );
  expect(
    await fails(
      'render',
      '--photo',
      file('photo.png'),
      '--recipe',
      recipe('lost.json', [{ source: { kind: 'picture', file: 'lost.png' } }]),
      '--out',
      out,
    ),
  ).toMatch(/no file/);
  expect(await fails('render', '--photo', file('photo.png'), '--recipe', good, '--out', file('x.gif'))).toMatch(/must be named/);
  expect(await fails('material', 'paper.gold', '--out', out)).toMatch(/no material called/);
  expect(await fails('material', 'paper.aged', '--size', '9x9', '--out', out)).toMatch(/--size/);
  expect(await fails('polish')).toMatch(/no command "polish"/);
  expect(await fails('measure', file('photo.png'), file('grey.png'))).toMatch(/differ in size/);
  expect(await fails('check', recipe('p.json', [{ source: { kind: 'material', id: 'paper.aged', params: { border: 9 } } }]))).toMatch(/border/);
  expect(existsSync(out)).toBe(false);
});

it('a recipe reads only regular files of bounded size in its own folder, and a picture called “photo” is not taken for the photo', async () => {
  const named = (name: string, picture: string) =>
    recipe(name, [{ source: { kind: 'picture', file: picture }, lay: { fit: 'stretch' }, blend: 'normal', strength: 1 }]);
  const out = file('escape.png');
  mkdirSync(file('inner'), { recursive: true });
  writeFileSync(file('inner/r.json'), readFileSync(named('up.json', '../grey.png')));
  symlinkSync('/etc/passwd', file('link.png'));
  const cases: [string, RegExp][] = [
    [named('a.json', '../../etc/passwd'), /outside its own folder/],
    [named('b.json', '/dev/zero'), /outside its own folder/],
    [named('c.json', file('grey.png')), /outside its own folder/],
    [file('inner/r.json'), /outside its own folder/],
    [named('d.json', 'link.png'), /outside its own folder/],
    [named('e.json', 'inner'), /is no file/],
    [named('f.json', `${'x'.repeat(300)}.png`), /names a picture "x{80}…"/],
    [named('g.json', 'a\0b.png'), /outside its own folder/],
  ];
  for (const [from, says] of cases) {
    expect(await fails('render', '--photo', file('photo.png'), '--recipe', from, '--out', out)).toMatch(says);
    expect(await fails('check', from)).toMatch(says);
  }
  expect(await fails('render', '--photo', '/dev/zero', '--recipe', recipe('plain2.json', []), '--out', out)).toMatch(/is no file/);
  expect(existsSync(out)).toBe(false);
  // A picture that is called as the photo once was inside is laid as itself.
  copyFileSync(file('grey.png'), file('photo'));
  await run('render', '--photo', file('photo.png'), '--recipe', named('h.json', 'photo'), '--out', file('named.png'));
  expect([...(await pixels('named.png')).subarray(0, 3)]).toEqual([128, 128, 128]);
});

it('strokes whose places or lengths no brush can have are refused at once', async () => {
  const strokes = (points: number[][], more: object = {}) =>
    recipe('far.json', [{ source: { kind: 'colour' }, mask: { parts: [{ kind: 'strokes', strokes: [{ ...more, points }] }] } }]);
  expect(await fails('check', strokes([[2147483648, 0, 1]]))).toMatch(/strokes\[1\]\.points/);
  const wild = Array.from({ length: 20000 }, (_, i) => [i % 2 ? 900 : -900, 0.5, 1]);
  expect(await fails('check', strokes(wild, { size: 5 }))).toMatch(/a stroke is longer than a brush can draw/);
});

it('a material of 16 bits keeps them: a hundredth of the scale, stretched to all of it, has more than a hundred steps', async () => {
  const ramp = Uint16Array.from({ length: 240 * 160 * 3 }, (_, i) => 32768 + (Math.floor(i / 3) % 240) * 2.7);
  await sharp(ramp, { raw: { width: 240, height: 160, channels: 3 } })
    .toColourspace('rgb16')
    .png()
    .toFile(file('deep.png'));
  const levels = { kind: 'levels', black: 0.5, white: 0.51 };
  const look = (name: string, fitting?: object) =>
    recipe(name, [
      {
        source: { kind: 'picture', file: 'deep.png', ...(fitting ? { fitting } : {}) },
        lay: { fit: 'stretch' },
        blend: 'normal',
        treatments: [levels],
      },
    ]);
  for (const [name, fitting] of [
    ['deep', undefined],
    ['deep-fitted', { grey: true, top: 0.1 }],
  ] as const) {
    await run('render', '--photo', file('photo.png'), '--recipe', look(`${name}.json`, fitting), '--out', file(`${name}-out.png`));
    const out = await pixels(`${name}-out.png`);
    expect(new Set(Array.from({ length: 240 }, (_, x) => out[(80 * 240 + x) * 3])).size).toBeGreaterThan(100);
  }
});

it('a picture is trimmed and tiled without a seam as the recipe says', async () => {
  const W = 200;
  const raw = Buffer.from(Array.from({ length: W * W }, (_, i) => (i % W < 20 ? [0, 0, 0] : [200, 180, 160])).flat());
  await sharp(raw, { raw: { width: W, height: W, channels: 3 } }).png().toFile(file('bordered.png')); // prettier-ignore
  const source = { kind: 'picture', file: 'bordered.png', fitting: { left: 0.11, seamless: true } };
  await run(
    'render',
    '--photo',
    file('photo.png'),
    '--recipe',
    recipe('trim.json', [{ source, lay: { fit: 'tile', scale: 0.5 } }]),
    '--out',
    file('trim.png'),
  );
  const out = await pixels('trim.png');
  for (let i = 0; i < out.length; i += 3 * 97) expect([out[i], out[i + 1], out[i + 2]]).toEqual([200, 180, 160]);
});

it('checks a material pack, and says what is wrong with a broken one', async () => {
  const pack = path.join(root, 'demo/supplier/slipway-walls.zip');
  expect(await run('check', pack)).toContain('is a valid pack with 3 pictures (Slipway walls)');
  writeFileSync(file('half.zip'), readFileSync(pack).subarray(0, 9000));
  expect(await fails('check', file('half.zip'))).toContain('“half.zip” is not a zip file, or is damaged');
});

it('is called from any folder: its own files are found, and files are named from there', async () => {
  const r = recipe('elsewhere.json', [{ source: { kind: 'colour', colour: '#808080' }, blend: 'overlay' }]);
  // Neither the caller's environment nor its folder says where Dermatex lies.
  const { DERMATEX_ROOT: _root, ...bare } = env;
  const call = (...args: string[]) => spawnSync(process.execPath, [main, ...args], { encoding: 'utf8', env: bare as NodeJS.ProcessEnv, cwd: folder });
  const rendered = call('render', '--photo', 'photo.png', '--recipe', path.basename(r), '--out', 'elsewhere.png');
  expect([rendered.status, rendered.stderr]).toEqual([0, '']);
  expect(await sharp(file('elsewhere.png')).metadata()).toMatchObject({ width: 240, height: 160 });
  const made = call('material', 'paper.laid', '--seed', '1', '--size', '64x64', '--out', 'laid.png');
  expect([made.status, made.stderr]).toEqual([0, '']);
});

it('ends with the exit code of what happened, and says mistakes on the error stream', () => {
  const call = (...args: string[]) => spawnSync(process.execPath, [main, ...args], { encoding: 'utf8', env });
  expect(call('polish')).toMatchObject({ status: 2, stdout: '', stderr: expect.stringMatching(/^There is no command "polish".*\n$/) as string });
  expect(call('help')).toMatchObject({ status: 0, stderr: '' });
});

it('prints every label and help text of the controls, each help a short sentence', async () => {
  const out = await run('words');
  for (const label of ['Only the cracks', 'Follow the form', 'Vignette', 'Stained sheet', 'White balance', 'Whole face', 'Craquelure'])
    expect(out).toContain(label);
  // words.md: none of the inverted or literary phrases.
  expect(out).not.toMatch(/\b(nought|anew|afresh|what lies below|give out|mend)\b/i);
});
