import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync, mkdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { runHere } from './testing';

// Three models are loaded once; the last test starts its own processes.
jest.setTimeout(120_000);

const root = process.env.DERMATEX_ROOT ?? process.cwd();
const main = path.join(root, 'build/cli-main.mjs');
const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-guards-'));
const env = { ...process.env, DERMATEX_ROOT: root };
const run = async (...args: string[]) => expect(await runHere(args)).toMatchObject({ status: 0, err: '' });

// NASA's and the US Navy's photographs (public domain) and three CC0 pictures, from Debian's packages: scripts/real-photos.mjs.
const real = (name: string) => path.join(root, 'build/real', name);

interface Report {
  faces: { score: number; taken: boolean; box: { x: number; y: number; width: number; height: number } }[];
}
const found = new Map<string, Report>();
async function guards(name: string, photo = real(name)): Promise<Report> {
  let report = found.get(name);
  if (!report) {
    await run('guards', '--photo', photo, '--out', path.join(folder, name));
    report = JSON.parse(readFileSync(path.join(folder, name, 'guards.json'), 'utf8')) as Report;
    found.set(name, report);
  }
  return report;
}
const mask = async (name: string, region: string) => {
  const { data, info } = await sharp(path.join(folder, name, `${region}.png`))
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
};
type Box = [number, number, number, number];
/** The share of a box that a region covers by more than half. */
const covered = ({ data, width }: { data: Buffer; width: number }, [x, y, w, h]: Box) => {
  let n = 0;
  for (let j = y; j < y + h; j++) for (let i = x; i < x + w; i++) n += +(data[j * width + i] > 127);
  return n / (w * h);
};

describe('on real portraits', () => {
  // Boxes inside the eyes and the lips, measured by hand on the pictures: x, y, width, height in pixels.
  const people: [string, { eyes: Box[]; lips: Box[] }][] = [
    [
      'astronaut.png',
      {
        eyes: [
          [194, 97, 17, 8],
          [239, 99, 18, 8],
        ],
        lips: [[216, 141, 20, 12]],
      },
    ],
    [
      'grace_hopper.jpg',
      {
        eyes: [
          [212, 183, 28, 13],
          [290, 182, 28, 12],
        ],
        lips: [[240, 276, 56, 15]],
      },
    ],
  ];
  it.each(people)('%s: one face is found, and its eyes and lips are covered by at least 95 %%', async (name, boxes) => {
    expect((await guards(name)).faces.filter((f) => f.taken)).toHaveLength(1);
    const [eyes, lips] = [await mask(name, 'eyes'), await mask(name, 'lips')];
    for (const box of boxes.eyes) expect(covered(eyes, box)).toBeGreaterThanOrEqual(0.95);
    for (const box of boxes.lips) expect(covered(lips, box)).toBeGreaterThanOrEqual(0.95);
    // And they are no more than eyes and lips: under an eighth of the face.
    const { box } = (await guards(name)).faces[0];
    const area = (m: { data: Buffer }) => m.data.reduce((s, v) => s + v / 255, 0);
    expect(area(eyes)).toBeLessThan(0.12 * box.width * box.height);
    expect(area(lips)).toBeLessThan(0.12 * box.width * box.height);
  });

  it('the person overlaps a polygon drawn by hand by at least 0.9 (intersection over union)', async () => {
    await guards('astronaut.png');
    // Her hair, suit and the helmet in her arm.
    const outline =
      '155,60 165,45 185,32 205,20 232,16 262,22 285,38 300,65 302,90 295,112 280,128 268,137 262,150 258,170 275,185 297,210 305,235 322,242 340,258 ' +
      '352,285 360,330 362,350 375,346 400,343 430,350 460,370 480,400 492,440 500,460 511,480 511,511 45,511 30,480 25,448 23,416 22,384 27,352 35,320 ' +
      '45,288 60,255 85,235 110,215 118,195 130,170 150,155 175,149 184,148 180,130 170,122 160,110 154,85';
    const svg = `<svg width="512" height="512" xmlns="http://www.w3.org/2000/svg"><rect width="512" height="512"/><polygon fill="white" points="${outline}"/></svg>`;
    const want = await sharp(Buffer.from(svg)).removeAlpha().toColourspace('b-w').raw().toBuffer();
    const { data } = await mask('astronaut.png', 'subject');
    let [both, either] = [0, 0];
    for (let i = 0; i < 512 * 512; i++) {
      both += +(data[i] > 127 && want[i] > 127);
      either += +(data[i] > 127 || want[i] > 127);
    }
    expect(both / either).toBeGreaterThanOrEqual(0.9);
  });

  it('the teeth of a smile are found, and none behind closed lips', async () => {
    await guards('astronaut.png');
    await guards('grace_hopper.jpg');
    expect(covered(await mask('astronaut.png', 'teeth'), [218, 144, 14, 3])).toBeGreaterThan(0.7);
    const { data } = await mask('grace_hopper.jpg', 'teeth');
    expect(data.filter((v) => v > 127)).toHaveLength(0);
  });
});

it.each(['coffee.png', 'chelsea.png'])('%s: nobody is found where nobody is', async (name) => {
  expect((await guards(name)).faces.filter((f) => f.taken)).toHaveLength(0);
});

it('a man seen from the side, in grey, is found with one eye', async () => {
  expect((await guards('camera.png')).faces).toHaveLength(1);
});

it('two people beside each other are kept apart', async () => {
  const two = path.join(folder, 'two.png');
  const [a, b] = await Promise.all([sharp(real('astronaut.png')).toBuffer(), sharp(real('grace_hopper.jpg')).resize(427, 512).toBuffer()]);
  await sharp({ create: { width: 939, height: 512, channels: 3, background: '#888' } })
    .composite([
      { input: a, left: 0, top: 0 },
      { input: b, left: 512, top: 0 },
    ])
    .png()
    .toFile(two);
  const { faces } = await guards('two', two);
  expect(faces.filter((f) => f.taken)).toHaveLength(2);
  const eyes = await mask('two', 'eyes');
  expect(covered(eyes, [194, 97, 17, 8])).toBeGreaterThan(0.9);
});

it('writes a mask of the photo’s size for every region that design names, in 8 bits of grey', async () => {
  await guards('astronaut.png');
  for (const region of ['eyes', 'lips', 'teeth', 'nostrils', 'ears', 'skin', 'hair', 'subject', 'detail']) {
    const meta = await sharp(path.join(folder, 'astronaut.png', `${region}.png`)).metadata();
    expect([meta.width, meta.height, meta.channels, meta.depth]).toEqual([512, 512, 1, 'uchar']);
  }
});

it('lips at 65 % keep 35 % of the texture, eyes none, when a recipe is rendered (common practice)', async () => {
  const recipe = path.join(folder, 'lips.json');
  const coat = { source: { kind: 'colour', colour: '#000000' }, blend: 'normal', strength: 0.5 };
  writeFileSync(recipe, JSON.stringify({ dermatex: 1, guards: { regions: { subject: { amount: 0 } } }, coats: [coat] }));
  const out = path.join(folder, 'lips.png');
  await run('render', '--photo', real('grace_hopper.jpg'), '--recipe', recipe, '--out', out);
  const [before, after] = await Promise.all([real('grace_hopper.jpg'), out].map((f) => sharp(f).removeAlpha().raw().toBuffer()));
  const left = ([x, y, w, h]: Box) => {
    let [a, b] = [0, 0];
    for (let j = y; j < y + h; j++)
      for (let i = x; i < x + w; i++)
        for (let c = 0; c < 3; c++) {
          a += before[(j * 512 + i) * 3 + c];
          b += before[(j * 512 + i) * 3 + c] - after[(j * 512 + i) * 3 + c];
        }
    return b / (a * 0.5);
  };
  expect(left([255, 280, 30, 8])).toBeCloseTo(0.35, 1);
  expect(left([218, 186, 12, 8])).toBeLessThan(0.03);
  // Where nothing is guarded all of it shows.
  expect(left([20, 560, 60, 30])).toBeGreaterThan(0.98);
});

it('refuses what it cannot do in one line, with nothing written', async () => {
  const bad = async (...args: string[]) => {
    const { status, err } = await runHere(args);
    expect(status).toBe(2);
    expect(err.trim().split('\n')).toHaveLength(1);
  };
  const out = path.join(folder, 'none');
  await bad('guards', '--photo', path.join(folder, 'missing.png'), '--out', out);
  await bad('guards', '--photo', real('camera.png'));
  writeFileSync(path.join(folder, 'text.png'), 'no picture');
  await bad('guards', '--photo', path.join(folder, 'text.png'), '--out', out);
  expect(existsSync(out)).toBe(false);
});

it('says in one sentence when the models are damaged, and draws without them', () => {
  // A copy of what the command needs, with a model that ends in the middle.
  const broken = path.join(folder, 'broken');
  for (const part of ['models', 'public']) mkdirSync(path.join(broken, part), { recursive: true });
  execFileSync('sh', [
    '-c',
    `cp ${root}/models/* ${broken}/models/ && cp ${root}/public/*.wasm ${broken}/public/ && ln -s ${root}/build ${broken}/build && ln -s ${root}/node_modules ${broken}/node_modules && head -c 1000 ${root}/models/facemesh.bin > ${broken}/models/facemesh.bin`,
  ]);
  const withBroken = { ...env, DERMATEX_ROOT: broken };
  const { status, stderr } = spawnSync(process.execPath, [main, 'guards', '--photo', real('camera.png'), '--out', path.join(folder, 'b')], {
    encoding: 'utf8',
    env: withBroken,
  });
  expect(status).toBe(2);
  expect(stderr).toMatch(/^The models that find faces and people are missing or damaged here; .*\n$/);
  const recipe = path.join(folder, 'plain.json');
  writeFileSync(recipe, JSON.stringify({ dermatex: 1, guards: {}, coats: [{ source: { kind: 'colour', colour: '#204060' }, strength: 0.5 }] }));
  const out = path.join(folder, 'plain.png');
  execFileSync(process.execPath, [main, 'render', '--photo', real('camera.png'), '--recipe', recipe, '--out', out], {
    env: withBroken,
    stdio: 'pipe',
  });
  expect(existsSync(out)).toBe(true);
});
