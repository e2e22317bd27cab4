import { readFileSync } from 'node:fs';
import path from 'node:path';
import { wayTo } from '../src/core/form/light';
import { faceTaken, GRID, personTaken, type Finding } from '../src/core/guards/finding';
import { guardsSchema, type FoundId } from '../src/core/guards/schema';
import type { Engine } from '../src/engine/engine';
import { nodeFind } from '../src/engine/finder/node';
import { nodeEngine } from '../src/engine/node';
import { decodeFile } from './decode';
import { sizeOf } from './pictures';

// Some sixty photographs, each looked at once.
jest.setTimeout(240_000);

type Box = [x: number, y: number, width: number, height: number];
type Boxes = Partial<Record<'hair' | 'face' | 'ear' | 'teeth', Box[]>>;
/**
 * Boxes drawn by hand, in pixels of the photographs (scripts/real-photos.mjs). The regions were made while looking at those that are called `tuned`; the
 * others were looked at afterwards. One change was made after that: hair above the face and on either side of it is learned separately.
 */
const boxes = JSON.parse(readFileSync(path.join(__dirname, 'portraits.json'), 'utf8')) as Record<'tuned' | 'unseen', Record<string, Boxes>>;
/** Portraits with a closed mouth. */
const closed = [
  ...[1, 3, 4, 6, 7, 10].map((i) => `kit-face-${i}.jpg`),
  ...['grace_hopper.jpg', 'camera.png', 'kit-scene-1.jpg', 'kit-scene-4.jpg'],
  ...[1, 2, 3, 4, 5, 6].map((i) => `paper-face-${i}.jpg`),
  ...[6, 7, 8].map((i) => `argon-face-${i}.jpg`),
];
const root = process.env.DERMATEX_ROOT ?? process.cwd();
const looked: readonly FoundId[] = ['hair', 'skin', 'body', 'ears', 'teeth', 'eyes', 'brows', 'lips', 'nostrils', 'subject'];

interface Looked {
  finding: Finding;
  /** The share of a box that regions together cover by more than half. */
  covered(box: Box, ...regions: FoundId[]): number;
  /** Share of the photo that a region covers. */
  share(region: FoundId): number;
}

let engine: Engine;
const fileOf = (name: string) => path.join(root, 'build/real', name);
beforeAll(async () => {
  engine = await nodeEngine({
    decode: (name, deep) => decodeFile(fileOf(name), engine.pool, deep),
    find: nodeFind(),
  });
});
afterAll(() => engine.pool.close());

async function look(name: string): Promise<Looked> {
  const { width, height } = await sizeOf(fileOf(name));
  const piece = { photo: { key: name, name, width, height }, guards: guardsSchema.parse({}) };
  const finding = await engine.guards.find(piece.photo);
  const planes = new Map<FoundId, Uint8Array>();
  for (const id of looked) planes.set(id, await engine.guards.bytes(piece, id));
  const size = await engine.guards.plane(piece, 'hair');
  const k = size.width / width;
  const value = (id: FoundId, x: number, y: number) => planes.get(id)?.[y * size.width + x] ?? 0;
  return {
    finding,
    covered([x, y, w, h], ...regions) {
      const range = (from: number, length: number) => {
        const first = Math.round(from * k);
        return Array.from({ length: Math.max(1, Math.round((from + length) * k) - first) }, (_, i) => first + i);
      };
      const inside = range(y, h).flatMap((j) => range(x, w).map((i) => Math.max(...regions.map((id) => value(id, i, j)))));
      return inside.filter((v) => v > 127).length / inside.length;
    },
    share: (id) => [...(planes.get(id) ?? [])].reduce((sum, v) => sum + v, 0) / (255 * size.width * size.height),
  };
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
const takenOn = ({ finding }: Looked) => finding.faces.filter((_, i) => faceTaken(undefined, finding, i)).length;

/** Means over all boxes of one half, and how many teeth were seen on mouths without any. */
async function measure(half: Record<string, Boxes>) {
  const values = { hair: [] as number[], otherSkin: [] as number[], face: [] as number[], ear: [] as number[], teeth: [] as number[] };
  let [found, falseTeeth] = [0, 0];
  for (const [name, { hair = [], face = [], ear = [], teeth = [] }] of Object.entries(half)) {
    const seen = await look(name);
    found += takenOn(seen);
    for (const box of hair) {
      values.hair.push(seen.covered(box, 'hair'));
      values.otherSkin.push(seen.covered(box, 'body'));
    }
    for (const box of face) values.face.push(seen.covered(box, 'skin', 'eyes', 'brows', 'lips', 'nostrils', 'ears'));
    for (const box of ear) values.ear.push(seen.covered(box, 'ears'));
    for (const box of teeth) values.teeth.push(seen.covered(box, 'teeth'));
    if (closed.includes(name) && seen.share('teeth') > 1e-5) falseTeeth++;
  }
  return {
    found,
    falseTeeth,
    hair: mean(values.hair),
    otherSkin: mean(values.otherSkin),
    face: mean(values.face),
    ear: mean(values.ear),
    teeth: mean(values.teeth),
  };
}

it('on photographs that the regions were made with: hair, faces, ears and teeth', async () => {
  const got = await measure(boxes.tuned);
  console.info('tuned', got);
  expect(got.hair).toBeGreaterThanOrEqual(0.88);
  expect(got.otherSkin).toBeLessThanOrEqual(0.05);
  expect(got.face).toBeGreaterThanOrEqual(0.95);
  expect(got.teeth).toBeGreaterThanOrEqual(0.92);
  expect(got.falseTeeth).toBe(0);
});

it('on photographs that they were not made with', async () => {
  const got = await measure(boxes.unseen);
  console.info('unseen', got);
  // Each shows one face, two of them nearly from the side.
  expect(got.found).toBe(Object.keys(boxes.unseen).length);
  expect(got.hair).toBeGreaterThanOrEqual(0.85);
  expect(got.otherSkin).toBeLessThanOrEqual(0.1);
  expect(got.face).toBeGreaterThanOrEqual(0.95);
  expect(got.falseTeeth).toBe(0);
});

it('of groups, at least nine faces in ten are found', async () => {
  // Counted by eye; on the second, one is seen from the side with a hand before it.
  const faces = [3, 3, 3, 4, 5, 4];
  let found = 0;
  for (const i of faces.keys()) found += takenOn(await look(`group-${i + 1}.jpg`));
  expect(found / faces.reduce((a, b) => a + b)).toBeGreaterThanOrEqual(0.9);
  // That one is offered: about (459, 295), some 200 pixels wide.
  const { finding } = await look('group-2.jpg');
  expect(finding.seen).toHaveLength(1);
  const [x, y, size] = [finding.seen![0].x, finding.seen![0].y, finding.seen![0].size].map((v) => (v * 1920) / GRID);
  expect(Math.hypot(x - 459, y - 295)).toBeLessThan(60);
  expect(size).toBeGreaterThan(150);
});

it('on photographs without people, no face and no person is guarded unasked', async () => {
  const places = [1, 2, 3, 4, 5, 6, 7].map((i) => `kit-place-${i}.jpg`);
  const things = ['coffee.png', 'chelsea.png', 'rocket.jpg', 'motorcycle_left.png', 'retina.jpg', 'coins.png'];
  for (const name of [...places, ...things]) {
    const seen = await look(name);
    // Nothing has a face, but for the cat: hers is offered.
    const offered = name === 'chelsea.png' ? 1 : 0;
    expect([name, takenOn(seen), seen.finding.seen?.length, personTaken(undefined, seen.finding)]).toEqual([name, 0, offered, false]);
    expect(seen.share('subject')).toBeLessThanOrEqual(0.03);
  }
});

it('the light on a public-domain portrait is where its catchlights say', async () => {
  const { width, height } = await sizeOf(fileOf('astronaut.png'));
  const light = await engine.forms.light({ photo: { key: 'astronaut.png', name: 'a', width, height }, guards: undefined });
  // Read by hand: the lights lie 0.5 and 1 pixels to the left of the irises' middles and level with them, the irises 3.5 pixels in radius. A cornea (7.8 mm)
  // is a mirror with an iris of 5.9 mm (means of anatomy, from memory): its normal there leans 9° to the left, and the light stands at twice that.
  const way = wayTo({ azimuth: -19, elevation: 2 });
  const found = wayTo(light ?? { azimuth: 180, elevation: 0 });
  expect((Math.acos(found[0] * way[0] + found[1] * way[1] + found[2] * way[2]) * 180) / Math.PI).toBeLessThan(30);
});
