import path from 'node:path';
import { numbers, testMachine } from '@/testing/machine';
import { PAGE } from '../image/machine';
import { modeById, type BlendName } from '.';

/** What the test uses of CanvasKit (Skia built for WebAssembly): an independent implementation to compare with. */
interface CanvasKit {
  BlendMode: Record<string, object>;
  ColorType: { RGBA_F32: object };
  AlphaType: { Premul: object };
  ColorSpace: { SRGB: object };
  Paint: new () => { setColor(c: Float32Array): void; setBlendMode(m: object): void; setAntiAlias(on: boolean): void };
  Color4f(r: number, g: number, b: number, a: number): Float32Array;
  LTRBRect(l: number, t: number, r: number, b: number): Float32Array;
  Malloc(type: typeof Uint8Array, length: number): { toTypedArray(): Uint8Array };
  MakeRasterDirectSurface(
    info: object,
    memory: object,
    pitch: number,
  ): { getCanvas(): { drawRect(r: Float32Array, p: object): void }; flush(): void };
}

const skia: Record<string, BlendName> = {
  SrcOver: 'normal',
  Multiply: 'multiply',
  Screen: 'screen',
  Overlay: 'overlay',
  Darken: 'darken',
  Lighten: 'lighten',
  ColorDodge: 'color-dodge',
  ColorBurn: 'color-burn',
  HardLight: 'hard-light',
  SoftLight: 'soft-light',
  Difference: 'difference',
  Exclusion: 'exclusion',
  Hue: 'hue',
  Saturation: 'saturation',
  Color: 'color',
  Luminosity: 'luminosity',
  Plus: 'plus-lighter',
};

const N = 256;
const machine = testMachine(4);
const [back, over, mask] = [PAGE, PAGE + 16 * N, PAGE + 32 * N];
const next = numbers(5);
const colour = () => [next(), next(), next(), [1, 1, 0.75, 0.4][Math.floor(next() * 4)]];
const pairs = Array.from({ length: N }, () => [colour(), colour()]);

function ours(mode: BlendName): number[][] {
  pairs.forEach(([b, s], i) =>
    [0, 1, 2, 3].forEach((c) => {
      machine.floats[back / 4 + c * N + i] = b[c];
      machine.floats[over / 4 + c * N + i] = s[c];
      machine.floats[mask / 4 + i] = 1;
    }),
  );
  machine.kernels.blend(modeById(mode).kernel, back, over, mask, N * 4, N, 1);
  // Premultiplied, as Skia keeps it.
  return pairs.map((_, i) => [0, 1, 2].map((c) => machine.floats[back / 4 + c * N + i] * machine.floats[back / 4 + 3 * N + i]));
}

describe('blend modes, against CanvasKit', () => {
  let kit: CanvasKit;
  beforeAll(async () => {
    const load = jest.requireActual('canvaskit-wasm') as (options: object) => Promise<CanvasKit>;
    const folder = path.dirname(require.resolve('canvaskit-wasm'));
    kit = await load({ locateFile: (file: string) => path.join(folder, file) });
  });
  it.each(Object.keys(skia))('%s', (name) => {
    const memory = kit.Malloc(Uint8Array, N * 16);
    const info = { width: N, height: 1, colorType: kit.ColorType.RGBA_F32, alphaType: kit.AlphaType.Premul, colorSpace: kit.ColorSpace.SRGB };
    const surface = kit.MakeRasterDirectSurface(info, memory, N * 16);
    const canvas = surface.getCanvas();
    pairs.forEach((pair, i) =>
      pair.forEach((c, layer) => {
        const paint = new kit.Paint();
        paint.setAntiAlias(false);
        paint.setColor(kit.Color4f(c[0], c[1], c[2], c[3]));
        paint.setBlendMode(layer === 0 ? kit.BlendMode.Src : kit.BlendMode[name]);
        canvas.drawRect(kit.LTRBRect(i, 0, i + 1, 1), paint);
      }),
    );
    surface.flush();
    const bytes = memory.toTypedArray();
    const theirs = new Float32Array(bytes.buffer, bytes.byteOffset, N * 4);
    const mine = ours(skia[name]);
    let most = 0;
    mine.forEach((p, i) => p.forEach((v, c) => (most = Math.max(most, Math.abs(v - theirs[i * 4 + c])))));
    // A level of 8 bits is 0.0039.
    expect(most).toBeLessThan(0.0015);
  });
});
