import { coatSchema } from '../core/piece/schema';
import { numbers } from '@/testing/machine';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(120_000);

const [W, H] = [2000, 1400];
const random = numbers(5);
const photo = new Uint8Array(W * H * 4);
for (let y = 0, p = 0; y < H; y++)
  for (let x = 0; x < W; x++, p += 4) {
    const v = 120 + 70 * Math.sin(x / 90) * Math.cos(y / 70) + (x > 1200 ? 35 : 0) + 10 * random();
    photo.set([v, v * 0.9 + 10, v * 0.8 + 20, 255], p);
  }
let engine: Engine;
beforeAll(async () => {
  engine = await nodeEngine({ size: 2, decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, photo) }) });
});
afterAll(() => engine.pool.close());

const below = (...treatments: object[]) => coatSchema.parse({ id: `c${treatments.length}`, source: { kind: 'below' }, treatments, guards: 0 });

// A part of the picture is drawn tile by tile; for the whole picture, the smaller drawings are made first.
it.each<[string, ReturnType<typeof below>[]]>([
  ['patches at part strength', [below({ kind: 'patches', size: 14, strength: 0.6 })]],
  ['patches, then flow', [below({ kind: 'patches', size: 10 }, { kind: 'flow', length: 6, passes: 1 })]],
  ['dabs on patches', [below({ kind: 'patches', size: 10 }), below({ kind: 'dabs', size: 60, layers: 1 }, { kind: 'tone', contrast: 0.1 })]],
  ['a glow on poster shapes', [below({ kind: 'shapes', colours: 5 }), below({ kind: 'glow', radius: 50 }, { kind: 'tone', contrast: 0.1 })]],
])('%s are the same whether they are drawn ahead or tile by tile', async (_name, coats) => {
  const piece = { coats, strength: 1, photo: { key: 'k', name: 'k', width: W, height: H } };
  const region = { x: 300, y: 200, width: 700, height: 500 };
  const draw = (of: typeof region) => engine.draw({ piece, region: of, scale: 1, tile: engine.largeTile }, (p) => p.slice());
  const drawings = jest.spyOn(engine.pool, 'draw');
  const part = await draw(region);
  // Surveys are drawings too.
  const surveys = drawings.mock.calls.length - 1;
  const whole = await draw({ x: 0, y: 0, width: W, height: H });
  expect(drawings.mock.calls.length - surveys - 1).toBeGreaterThan(1);
  drawings.mockRestore();
  let [sum, far] = [0, 0];
  for (let y = 0; y < region.height; y++)
    for (let x = 0; x < region.width; x++)
      for (let c = 0; c < 3; c++) {
        const off = Math.abs(whole[((y + region.y) * W + x + region.x) * 4 + c] - part[(y * region.width + x) * 4 + c]);
        sum += off;
        if (off > 2) far++;
      }
  const count = region.width * region.height * 3;
  // 16 bits, and running sums that begin elsewhere, round differently in places.
  expect(sum / count).toBeLessThan(0.1);
  expect(far / count).toBeLessThan(0.005);
});
