import { toBase64 } from '../core/guards/bytes';
import { guardsSchema } from '../core/guards/schema';
import { coatSchema, type Piece } from '../core/piece/schema';
import { coarseMap, hairyHead, photographed, softGround } from '../testing/hairyHead';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(120_000);

const [W, H] = [960, 1200];
const head = hairyHead(W, H);
const map = coarseMap(head);
const grounds = { sky: softGround('sky', W, H), leaves: softGround('leaves', W, H) };
const photos = { sky: photographed(head, grounds.sky), leaves: photographed(head, grounds.leaves) };
type Ground = keyof typeof grounds;

/** Alpha from the same subject over two known backgrounds (triangulation matting: Smith & Blinn, Blue Screen Matting, SIGGRAPH 1996, theorem 4). */
function triangulated(a: Ground, b: Ground): Float32Array {
  return Float32Array.from({ length: W * H }, (_, i) => {
    let [over, under] = [0, 0];
    for (let k = 0; k < 3; k++) {
      const apart = grounds[a][3 * i + k] - grounds[b][3 * i + k];
      over += ((photos[a][4 * i + k] - photos[b][4 * i + k]) / 255) * apart;
      under += apart * apart;
    }
    return 1 - over / under;
  });
}

/** The subject cut out and laid on magenta, what it is there in truth, and the uncertain band of its map. */
async function cut(ground: Ground, strokes: object[] = []) {
  const engine: Engine = await nodeEngine({
    size: 2,
    find: async () => ({ version: 1, faces: [], person: { width: map.width, height: map.height, map: toBase64(map.bytes) } }),
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, photos[ground]) }),
  });
  try {
    const piece: Pick<Piece, 'coats' | 'strength' | 'photo' | 'guards'> = {
      photo: { key: ground, name: 'head.png', width: W, height: H },
      strength: 1,
      guards: guardsSchema.parse({ person: true, regions: { subject: { strokes } } }),
      coats: [
        coatSchema.parse({ id: 'a', source: { kind: 'colour', colour: '#ff00ff' }, blend: 'normal', guards: 0 }),
        coatSchema.parse({ id: 'b', source: { kind: 'cutout' }, blend: 'normal', guards: 0 }),
      ],
    };
    const { alpha } = await engine.guards.cutout(piece);
    const bytes = await engine.pool.call<Uint8Array>({ call: 'read', at: alpha.levels[0], bytes: W * H * 4 }, 0);
    const laid = await engine.draw({ piece, region: { x: 0, y: 0, width: W, height: H }, scale: 1 }, (p) => Buffer.from(p));
    return { alpha: Float32Array.from({ length: W * H }, (_, i) => bytes[4 * i] / 255), laid };
  } finally {
    engine.pool.close();
  }
}

/** Where the map is not sure, widened by 2 % of the long side. */
const band = (() => {
  const [reach, out] = [Math.round(0.02 * H), new Uint8Array(W * H)];
  const k = W / map.width;
  map.bytes.forEach((v, i) => {
    if (v < 0.05 * 255 || v > 0.95 * 255) return;
    const [x, y] = [((i % map.width) + 0.5) * k, (Math.floor(i / map.width) + 0.5) * k];
    for (let py = Math.max(0, Math.floor(y - reach)); py <= Math.min(H - 1, y + reach); py++)
      for (let px = Math.max(0, Math.floor(x - reach)); px <= Math.min(W - 1, x + reach); px++)
        if (Math.hypot(px - x, py - y) <= reach) out[py * W + px] = 1;
  });
  return out;
})();
const meanOver = (inside: (i: number) => boolean, value: (i: number) => number) => {
  let [sum, count] = [0, 0];
  for (let i = 0; i < W * H; i++) {
    if (!inside(i)) continue;
    sum += value(i);
    count++;
  }
  return sum / count;
};

/** Before there was matting, a guided filter of the map: measured on these two photographs at commit 5a19410. */
const before = { sky: { alpha: 0.077, colour: 0.0427 }, leaves: { alpha: 0.0783, colour: 0.0468 } };

it('the truth is what triangulation finds', () => {
  const found = triangulated('sky', 'leaves');
  expect(
    meanOver(
      (i) => band[i] > 0,
      (i) => Math.abs(found[i] - head.alpha[i]),
    ),
  ).toBeLessThan(0.02);
});

describe.each(['sky', 'leaves'] as const)('fine hair before %s', (ground) => {
  it('is cut out with an alpha close to the truth, and with the colours of hair alone', async () => {
    const { alpha, laid } = await cut(ground);
    const error = meanOver(
      (i) => band[i] > 0,
      (i) => Math.abs(alpha[i] - head.alpha[i]),
    );
    const magenta = [1, 0, 1];
    const colour = meanOver(
      (i) => band[i] > 0,
      (i) =>
        magenta.reduce((s, m, k) => s + Math.abs(laid[4 * i + k] / 255 - head.colours[3 * i + k] * head.alpha[i] - m * (1 - head.alpha[i])), 0) / 3,
    );
    expect(error).toBeLessThan(0.02);
    expect(error).toBeLessThan(before[ground].alpha / 2);
    expect(colour).toBeLessThan(before[ground].colour / 2);
  });
});

it('a correction painted on the subject also holds in its cut-out', async () => {
  const tip = { size: 100, hardness: 1, strength: 1, flow: 1 };
  const { alpha } = await cut('sky', [
    { does: 'take', ...tip, points: [[0.5, 0.2, 1]] },
    { does: 'put', ...tip, points: [[0.1, 0.2, 1]] },
  ]);
  const about = (x: number, y: number) =>
    meanOver(
      (i) => Math.hypot((i % W) - x * W, Math.floor(i / W) - y * H) < 12,
      (i) => alpha[i],
    );
  expect(about(0.5, 0.2)).toBeLessThan(0.01);
  expect(about(0.1, 0.2)).toBeGreaterThan(0.99);
});
