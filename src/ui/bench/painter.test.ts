import { pieceSchema } from '@/core/piece/schema';
import type { Drawing, DrawOptions, Engine } from '@/engine/engine';
import { Cancelled } from '@/engine/stopping';
import { useFrames, type Frame } from '@/store/frames';
import { Painter, QUICK_PIXELS, type Scene } from './painter';

// A canvas and an engine that only write down what is asked of them.
interface Call extends Drawing {
  quick: boolean;
  finish(): void;
  fail(error: Error): void;
}

function setUp({ detailSeconds = 0 } = {}) {
  const calls: Call[] = [];
  const errors: unknown[] = [];
  const frames: Frame[] = [];
  const engine = {
    detailSeconds: () => detailSeconds,
    draw: (drawing: Drawing, take: (bytes: Uint8Array) => void, options: DrawOptions) =>
      new Promise<void>((resolve, reject) => {
        options.signal?.addEventListener('abort', () => reject(new Cancelled()));
        calls.push({
          ...drawing,
          quick: options.quick === true,
          finish() {
            take(new Uint8Array(drawing.region.width * drawing.region.height * 4));
            resolve();
          },
          fail: reject,
        });
      }),
  } as unknown as Engine;
  const canvas = {
    width: 1,
    height: 1,
    dataset: {} as Record<string, string>,
    style: {} as Record<string, string>,
    getContext: () => ({ putImageData: () => undefined }),
  };
  Object.assign(globalThis, {
    ImageData: class {
      data: Uint8ClampedArray;
      constructor(
        readonly width: number,
        readonly height: number,
      ) {
        this.data = new Uint8ClampedArray(width * height * 4);
      }
    },
  });
  useFrames.subscribe(({ frame }) => frame && frames.push(frame));
  let first = 0;
  const painter = new Painter(
    engine,
    canvas as unknown as HTMLCanvasElement,
    (e) => errors.push(e),
    () => first++,
  );
  return { painter, canvas, calls, errors, frames, firsts: () => first };
}

const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'P',
  created: 1,
  changed: 1,
  photo: { key: 'k', name: 'k', width: 4000, height: 3000 },
});
const scene = (more: Partial<Scene> = {}): Scene => ({
  piece,
  view: { kind: 'piece' },
  chosen: null,
  viewport: { width: 1200, height: 900, zoom: 0.3, x: 2000, y: 1500 },
  zoom: 0.3,
  density: 1,
  ...more,
});
const tick = () => new Promise((resolve) => setTimeout(resolve, 0));
const rest = () => new Promise((resolve) => setTimeout(resolve, 110));

it('draws quickly at no more than 0.4 megapixels, then finely once it rests', async () => {
  const { painter, canvas, calls, frames, firsts } = setUp();
  painter.request(scene());
  expect(canvas.dataset.drawn).toBe('no');
  expect(calls).toHaveLength(1);
  expect(calls[0].quick).toBe(true);
  expect(calls[0].region.width * calls[0].region.height).toBeLessThanOrEqual(QUICK_PIXELS * 1.02);
  calls[0].finish();
  await rest();
  expect(calls).toHaveLength(2);
  expect(calls[1]).toMatchObject({ quick: false, scale: 0.3, region: { x: 0, y: 0, width: 1200, height: 900 } });
  calls[1].finish();
  await tick();
  expect(canvas.dataset.drawn).toBe('fine');
  expect(frames.map((f) => f.quick)).toEqual([true, false]);
  expect(firsts()).toBe(1);
  painter.close();
});

it('draws one picture at a time and always the newest that is wanted', async () => {
  const { painter, calls } = setUp();
  painter.request(scene());
  for (let i = 1; i <= 5; i++) painter.request(scene({ piece: { ...piece, strength: i / 10 } }));
  expect(calls).toHaveLength(1);
  calls[0].finish();
  await tick();
  expect(calls).toHaveLength(2);
  expect(calls[1].piece.strength).toBe(0.5);
  painter.close();
});

it('stops a fine drawing when something changes, without a complaint', async () => {
  const { painter, calls, errors } = setUp();
  painter.request(scene());
  calls[0].finish();
  await rest();
  expect(calls).toHaveLength(2);
  painter.request(scene({ piece: { ...piece, strength: 0.4 } }));
  await tick();
  expect(errors).toEqual([]);
  expect(calls[2]).toMatchObject({ quick: true });
  painter.close();
});

it('does not draw again what is on the canvas, when the same picture comes as another object', async () => {
  const { painter, canvas, calls } = setUp();
  painter.request(scene({ piece: { ...piece, strength: 0.4 } }));
  calls[0].finish();
  await rest();
  calls[1].finish();
  await tick();
  // What a released slider keeps.
  painter.request(scene({ piece: { ...pieceSchema.parse(JSON.parse(JSON.stringify(piece))), strength: 0.4, changed: 2 } }));
  await rest();
  expect(calls).toHaveLength(2);
  expect(canvas.dataset.drawn).toBe('fine');
  painter.request(scene({ piece: { ...piece, strength: 0.5, changed: 2 } }));
  expect(calls).toHaveLength(3);
  painter.close();
});

it('tells what went wrong and goes on with the next', async () => {
  const { painter, calls, errors } = setUp();
  painter.request(scene());
  calls[0].fail(new Error('There is no material called "x".'));
  await tick();
  expect((errors[0] as Error).message).toContain('no material');
  painter.request(scene());
  expect(calls).toHaveLength(2);
  painter.close();
});

it('asks for the part in view only, and for nothing when the photo is out of view', () => {
  const { painter, calls } = setUp();
  painter.request(scene({ zoom: 2, viewport: { width: 400, height: 300, zoom: 2, x: 0, y: 0 } }));
  expect(calls[0].region).toMatchObject({ x: 0, y: 0, width: 200, height: 150 });
  painter.close();
  const other = setUp();
  other.painter.request(scene({ zoom: 2, viewport: { width: 400, height: 300, zoom: 2, x: -900, y: -900 } }));
  expect(other.calls).toHaveLength(0);
  other.painter.close();
});

it('places the canvas where its part of the photo lies in the view, and shows pixels when they are large', async () => {
  const { painter, canvas, calls } = setUp();
  painter.request(scene({ zoom: 4, viewport: { width: 400, height: 300, zoom: 4, x: 100, y: 80 } }));
  calls[0].finish();
  await tick();
  const { region, scale } = calls[0];
  expect(parseFloat(canvas.style.left)).toBeCloseTo((region.x / scale - 100) * 4 + 200, 6);
  expect(parseFloat(canvas.style.width)).toBeCloseTo((region.width / scale) * 4, 6);
  expect(canvas.style.imageRendering).toBe('pixelated');
  painter.close();
});

it('a quick drawing that is late is given up for a coarser one of the same scene', async () => {
  const { painter, calls, errors } = setUp();
  painter.request(scene());
  await tick();
  expect(calls).toHaveLength(1);
  await new Promise((resolve) => setTimeout(resolve, 480));
  expect(calls).toHaveLength(2);
  const [first, second] = calls;
  expect(second.quick).toBe(true);
  expect(second.scale).toBeLessThan(first.scale / 2.5);
  expect(second.piece).toBe(first.piece);
  second.finish();
  await rest();
  // Fine again once it rests.
  expect(calls[2].quick).toBe(false);
  expect(calls[2].scale).toBeGreaterThan(second.scale);
  calls[2].finish();
  await tick();
  expect(errors).toEqual([]);
  painter.close();
});

it('draws materials as fine as the photo when it has rested for longer, where they gain by it', async () => {
  const { painter, canvas, calls } = setUp({ detailSeconds: 2 });
  painter.request(scene());
  await tick();
  calls[0].finish();
  await rest();
  expect(calls[1]).toMatchObject({ quick: false, full: false });
  calls[1].finish();
  await tick();
  expect(canvas.dataset).toMatchObject({ drawn: 'fine', detail: 'no' });
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(calls[2]).toMatchObject({ quick: false, full: true, scale: calls[1].scale });
  calls[2].finish();
  await tick();
  expect(canvas.dataset.detail).toBe('full');
  // The next change stops it before it begins.
  painter.request(scene({ chosen: 'other' }));
  await tick();
  calls[3].finish();
  await rest();
  calls[4].finish();
  await tick();
  painter.request(scene({ chosen: 'another' }));
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(calls.filter((call) => call.full)).toHaveLength(1);
  painter.close();
});
