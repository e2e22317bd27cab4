import { readySchema } from '../core/ready/schema';
import { numbers } from '@/testing/machine';
import { nodeEngine } from './node';

jest.setTimeout(60_000);

const [W, H] = [320, 240];
const next = numbers(12);
const photo = new Uint8Array(W * H * 4);
for (let y = 0, p = 0; y < H; y++)
  for (let x = 0; x < W; x++, p += 4) {
    const litter = Math.hypot(x - 160, y - 120) < 9;
    photo.set(litter ? [220, 30, 30, 255] : [90 + x / 4 + 6 * next(), 110 + y / 4 + 6 * next(), 150, 255], p);
  }
const ready = readySchema.parse({ spots: [{ points: [[0.5, 0.5]], size: 160, from: [0.2, 0.1] }], tone: { exposure: 0.3 } });

/** The whole piece at some scales by one engine. */
async function draw(inPlace: boolean, scales: number[]): Promise<Uint8Array[]> {
  const engine: Awaited<ReturnType<typeof nodeEngine>> = await nodeEngine({
    size: 2,
    inPlace,
    decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, photo) }),
  });
  const out: Uint8Array[] = [];
  for (const scale of scales) {
    const region = { x: 0, y: 0, width: W * scale, height: H * scale };
    const piece = { coats: [], strength: 1, photo: { key: 'k', name: 'k', width: W, height: H }, ready };
    out.push(await engine.draw({ piece, region, scale }, (p) => p.slice()));
  }
  engine.pool.close();
  return out;
}

it('spots mended where the picture lies give the picture that a mended copy gives, once and again, at full size and smaller', async () => {
  const scales = [1, 1, 0.5, 0.25];
  const [copied, inPlace] = [await draw(false, scales), await draw(true, scales)];
  scales.forEach((_, i) => expect(Buffer.compare(Buffer.from(copied[i]), Buffer.from(inPlace[i]))).toBe(0));
  // The litter is gone in both.
  const middle = (120 * W + 160) * 4;
  expect(inPlace[0][middle] - inPlace[0][middle + 2]).toBeLessThan(60);
});
