import { numbers } from '@/testing/machine';
import { highestOctave } from '@/testing/octave';
import { coatSchema } from '../core/piece/schema';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(60_000);

const [W, H] = [1200, 800];
const [w, h] = [300, 200];
let engine: Engine;
beforeAll(async () => {
  const photo = new Uint8Array(W * H * 4).fill(200);
  const random = numbers(11);
  const scan = Uint8Array.from({ length: w * h * 4 }, (_, i) => (i % 4 === 3 ? 255 : 120 + 16 * random()));
  engine = await nodeEngine({
    size: 2,
    decode: async (key) =>
      key === 'scan'
        ? { width: w, height: h, place: async (at) => engine.pool.write(at, scan) }
        : { width: W, height: H, place: async (at) => engine.pool.write(at, photo) },
  });
});
afterAll(() => engine.pool.close());

const draw = (source: object, lay: object = {}, scale = 1) =>
  engine.draw(
    {
      piece: {
        photo: { key: 'k', name: 'k.png', width: W, height: H },
        strength: 1,
        coats: [coatSchema.parse({ id: 'a', source: { kind: 'picture', file: 'scan', width: w, height: h, ...source }, blend: 'normal', lay })],
      },
      region: { x: 0, y: 0, width: W * scale, height: H * scale },
      scale,
      tile: 256,
    },
    (pixels) => Buffer.from(pixels),
  );
const octave = (picture: Buffer, width = W, height = H) => highestOctave(picture, width, { x: 0, y: 0, width, height });

it.each([
  ['covering', {}],
  ['turned', { turn: 30, scale: 1.4 }],
  [
    'in perspective',
    {
      corners: [
        [0, 0.05],
        [1, 0],
        [1, 1],
        [0, 0.95],
      ],
    },
  ],
  ['repeated, four times its size', { fit: 'tile', scale: 7 }],
  ['repeated and mixed', { fit: 'tile', scale: 7, mix: true }],
])('a scan that lies %s is given grain of its own kind', async (_, lay) => {
  const [soft, grained] = [await draw({ grain: 0 }, lay), await draw({}, lay)];
  expect(octave(grained)).toBeGreaterThan(1.3 * octave(soft));
});

it('a reduced export differs little by it, and none where the scan has pixels enough', async () => {
  const [soft, grained] = [await draw({ grain: 0 }, {}, 0.25), await draw({}, {}, 0.25)];
  expect(Buffer.compare(soft, grained)).toBe(0);
  const [half, halfGrained] = [await draw({ grain: 0 }, {}, 0.5), await draw({}, {}, 0.5)];
  expect(octave(halfGrained, W / 2, H / 2)).toBeGreaterThan(octave(half, W / 2, H / 2));
});
