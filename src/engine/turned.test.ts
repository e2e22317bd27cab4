import { coatSchema } from '../core/piece/schema';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(120_000);

const [W, H] = [480, 320];
let engine: Engine;
beforeAll(async () => {
  const photo = new Uint8Array(W * H * 4).fill(255);
  engine = await nodeEngine({ size: 2, decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, photo) }) });
});
afterAll(() => engine.pool.close());

const draw = (source: object, lay: object, treatments: object[] = [], quick = false) =>
  engine.draw(
    {
      piece: {
        photo: { key: 'k', name: 'k.png', width: W, height: H },
        strength: 1,
        coats: [
          coatSchema.parse({ id: 'a', source: { kind: 'material', id: 'paper.hot-press', seed: 3, ...source }, blend: 'normal', lay, treatments }),
        ],
      },
      region: { x: 0, y: 0, width: W, height: H },
      scale: 1,
      tile: 128,
    },
    (pixels) => Buffer.from(pixels),
    { quick },
  );

/** Degrees clockwise from the top from which a picture is lit, by least squares of its light over the slopes of its height. */
function litFrom(look: Buffer, unlit: Buffer, height: Buffer): number {
  let [xx, xy, yy, xv, yv] = [0, 0, 0, 0, 0];
  for (let y = 1; y < H - 1; y++)
    for (let x = 1; x < W - 1; x++) {
      const i = (y * W + x) * 4 + 1;
      const [gx, gy, v] = [height[i + 4] - height[i - 4], height[i + 4 * W] - height[i - 4 * W], look[i] - unlit[i]];
      [xx, xy, yy, xv, yv] = [xx + gx * gx, xy + gx * gy, yy + gy * gy, xv + gx * v, yv + gy * v];
    }
  const det = xx * yy - xy * xy;
  const [a, b] = [(xv * yy - yv * xy) / det, (yv * xx - xv * xy) / det];
  return ((Math.atan2(-a, b) * 180) / Math.PI + 360) % 360;
}

const none = { light: { from: 'none' } };
const from = async (source: object, lay: object) =>
  litFrom(await draw(source, lay), await draw(none, lay), await draw({}, lay, [{ kind: 'relief', map: 'height', soften: 0, showsMap: true }]));
const apart = (a: number, b: number) => Math.abs(((((a - b) % 360) + 540) % 360) - 180);

// The generator lights it from 318°: −2.3 radians from the right.
const OWN = 318;
const lays: [string, object][] = [
  ['as it comes', {}],
  ['turned a quarter', { turn: 90 }],
  ['turned aside', { turn: -137 }],
  ['mirrored', { flipX: true }],
  ['upside down and turned', { flipY: true, turn: 30 }],
  ['repeated and turned', { fit: 'tile', turn: 60 }],
];

it.each(lays)('a material that is laid %s is lit from its own side of the photo, or from the one that is said', async (_, lay) => {
  expect(apart(await from({}, lay), OWN)).toBeLessThan(10);
  expect(apart(await from({ light: { from: 'side', direction: 70, elevation: 35 } }, lay), 70)).toBeLessThan(10);
});

it('while it is turned, the sheet that is at hand stays', async () => {
  const source = { seed: 77 };
  await draw(source, { turn: 40 });
  const [quick, fine] = [await draw(source, { turn: 60 }, [], true), await draw(source, { turn: 60 })];
  let sum = 0;
  for (let i = 0; i < fine.length; i++) sum += Math.abs(quick[i] - fine[i]);
  // Lit a little from elsewhere, but as sharp: a small sheet made in haste differs by more.
  expect(sum / fine.length).toBeLessThan(1.5);
  expect(Buffer.compare(quick, fine)).not.toBe(0);
});
