// Checks against Chromium's own implementations of the standards that the engine follows.
import type { Page } from '@playwright/test';
import { modes } from '../src/core/blend';
import { expect, test } from './fixtures';

interface Case {
  blend: string;
  strength: number;
  treatments: object[];
  filter?: string;
  alpha: boolean;
}

/** Largest difference, in levels of the premultiplied result, between the engine and Chromium's canvas. */
function differ(page: Page, c: Case): Promise<number> {
  return page.evaluate(async ({ blend, strength, treatments, filter, alpha }) => {
    const W = 64;
    const H = 48;
    let s = 7;
    const random = () => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 4294967296;
    const make = () => {
      const image = new ImageData(W, H);
      for (let i = 0; i < image.data.length; i++) {
        // Steps of 17: dodge, burn and hue divide by such differences, which would blow up the rounding of half floats.
        const v = random();
        image.data[i] = i % 4 === 3 ? (alpha ? [64, 128, 200, 255][Math.floor(v * 4)] : 255) : 17 * Math.floor(v * 16);
      }
      return image;
    };
    const [photo, coat] = [make(), make()];
    // A canvas of half floats: Chromium's formulas without the rounding of an 8-bit premultiplied store.
    const canvas = (image: ImageData) => {
      const c = document.createElement('canvas');
      c.width = W;
      c.height = H;
      c.getContext('2d', { colorType: 'float16' } as CanvasRenderingContext2DSettings)!.putImageData(image, 0, 0);
      return c;
    };
    const target = canvas(photo);
    const context = target.getContext('2d')!;
    context.globalCompositeOperation = (
      blend === 'normal' ? 'source-over' : blend === 'plus-lighter' ? 'lighter' : blend
    ) as GlobalCompositeOperation;
    context.globalAlpha = strength;
    if (filter) context.filter = filter;
    context.drawImage(canvas(coat), 0, 0);
    const read = { pixelFormat: 'rgba-float16' } as unknown as ImageDataSettings;
    const want = [...(context.getImageData(0, 0, W, H, read).data as unknown as ArrayLike<number> as number[])].map((v) => v * 255);

    const engine = (globalThis as unknown as { dermatexEngine: any }).dermatexEngine;
    const key = Math.random().toString(36);
    // As the engine keeps a photo, and an imported picture that is laid.
    for (const [name, image] of [
      [`picture:${key}p`, photo],
      [`own:${key}c:`, coat],
    ] as const) {
      const { data } = image;
      await engine.library.load(name, async () => ({
        width: W,
        height: H,
        place: async (at: number) => engine.pool.write(at, data),
      }));
    }
    const one = {
      id: 'c',
      visible: true,
      source: { kind: 'picture', file: `${key}c` },
      lay: { fit: 'stretch', scale: 1, stretchX: 1, stretchY: 1, x: 0, y: 0, turn: 0, flipX: false, flipY: false },
      treatments,
      blend,
      strength,
      limits: [0, 0, 1, 1],
      mask: { start: 'all', parts: [] },
      guards: 1,
    };
    const piece = { coats: [one], strength: 1, photo: { key: `${key}p`, name: 'p', width: W, height: H } };
    const got: Uint8Array = await engine.draw({ piece, region: { x: 0, y: 0, width: W, height: H }, scale: 1 }, (p: Uint8Array) => p.slice());
    let most = 0;
    for (let i = 0; i < got.length; i += 4) {
      for (let k = 0; k < 4; k++) {
        const [a, b] = k === 3 ? [got[i + 3], want[i + 3]] : [(got[i + k] * got[i + 3]) / 255, (want[i + k] * want[i + 3]) / 255];
        most = Math.max(most, Math.abs(Math.round(a) - Math.round(b)));
      }
    }
    return most;
  }, c);
}

test('all modes that a canvas has, with alpha, agree with Chromium’s canvas within 1 level', { tag: '@wide' }, async ({ page }) => {
  await page.goto('/materials');
  await page.waitForFunction(() => 'dermatexEngine' in globalThis);
  const off: Record<string, number> = {};
  // Those of common practice have no counterpart on a canvas.
  for (const { id } of modes.filter((m) => m.kernel < 16 || m.id === 'plus-lighter')) {
    for (const strength of [1, 0.6]) {
      const alpha = await differ(page, { blend: id, strength, treatments: [], alpha: true });
      const opaque = await differ(page, { blend: id, strength, treatments: [], alpha: false });
      off[`${id} ${strength}`] = Math.max(alpha, opaque);
    }
  }
  const wrong = Object.entries(off).filter(([, v]) => v > 1);
  expect(wrong).toEqual([]);
});

test('the tone of a material agrees with Chromium’s filters', { tag: '@wide' }, async ({ page }) => {
  await page.goto('/materials');
  await page.waitForFunction(() => 'dermatexEngine' in globalThis);
  const neutral = { kind: 'tone', brightness: 0, contrast: 0, saturation: 0, hue: 0, invert: false };
  const cases: [string, object][] = [
    ['brightness(1.3)', { brightness: 0.3 }],
    ['contrast(0.6)', { contrast: -0.4 }],
    ['contrast(1.7)', { contrast: 0.7 }],
    ['saturate(0.3)', { saturation: -0.7 }],
    ['saturate(1.8)', { saturation: 0.8 }],
    ['hue-rotate(75deg)', { hue: 75 }],
    ['invert(1)', { invert: true }],
    [
      'brightness(1.1) contrast(1.2) saturate(0.6) hue-rotate(-40deg) invert(1)',
      { brightness: 0.1, contrast: 0.2, saturation: -0.4, hue: -40, invert: true },
    ],
  ];
  const off: Record<string, number> = {};
  for (const [filter, tone] of cases)
    off[filter] = await differ(page, { blend: 'normal', strength: 1, treatments: [{ ...neutral, ...tone }], filter, alpha: false });
  // One filter alone within 1 level; Chromium rounds to 8 bits between the five steps of a chain, the engine does not.
  expect(Object.entries(off).filter(([f, v]) => v > (f.includes(' ') ? 3 : 1))).toEqual([]);
});

test('relief agrees with Chromium’s diffuse light from a distant lamp, drape with its displacement', { tag: '@wide' }, async ({ page }) => {
  await page.goto('/materials');
  await page.waitForFunction(() => 'dermatexEngine' in globalThis);
  const off = await page.evaluate(async () => {
    const W = 2000;
    const H = 128;
    // Soft forms: a filter that reads whole pixels and one that reads between them agree there.
    const wave = (x: number, y: number) => 128 + 60 * Math.sin(x / 90) * Math.cos(y / 70) + 30 * Math.sin((x + 2 * y) / 160);
    const image = new ImageData(W, H);
    for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) image.data.set([wave(x, y), wave(x, y), wave(x, y), 255], (y * W + x) * 4);
    const engine = (globalThis as unknown as { dermatexEngine: any }).dermatexEngine;
    await engine.library.load('picture:soft', async () => ({ width: W, height: H, place: async (at: number) => engine.pool.write(at, image.data) }));
    const ours = async (treatment: object): Promise<Uint8Array> => {
      const coat = {
        id: 'c',
        visible: true,
        source: { kind: 'photo' },
        lay: { fit: 'stretch', scale: 1, stretchX: 1, stretchY: 1, x: 0, y: 0, turn: 0, flipX: false, flipY: false },
        treatments: [{ active: true, strength: 1, mode: 'normal', ...treatment }],
        blend: 'normal',
        strength: 1,
        limits: [0, 0, 1, 1],
        mask: { start: 'all', parts: [] },
        guards: 1,
      };
      const piece = { coats: [coat], strength: 1, photo: { key: 'soft', name: 'p', width: W, height: H } };
      return engine.draw({ piece, region: { x: 0, y: 0, width: W, height: H }, scale: 1 }, (p: Uint8Array) => p.slice());
    };
    const theirs = async (filter: string): Promise<Uint8ClampedArray> => {
      const source = document.createElement('canvas');
      source.width = W;
      source.height = H;
      source.getContext('2d')!.putImageData(image, 0, 0);
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${W}" height="${H}"><filter id="f" x="0" y="0" width="100%" height="100%" color-interpolation-filters="sRGB">${filter}</filter><image href="${source.toDataURL()}" width="${W}" height="${H}" filter="url(#f)"/></svg>`;
      const drawn = new Image();
      drawn.src = `data:image/svg+xml;base64,${btoa(svg)}`;
      await drawn.decode();
      const canvas = document.createElement('canvas');
      canvas.width = W;
      canvas.height = H;
      canvas.getContext('2d')!.drawImage(drawn, 0, 0);
      return canvas.getContext('2d')!.getImageData(0, 0, W, H).data;
    };
    const most = (a: ArrayLike<number>, b: ArrayLike<number>, inset: number) => {
      let far = 0;
      for (let y = inset; y < H - inset; y++)
        for (let x = inset; x < W - inset; x++) far = Math.max(far, Math.abs(a[(y * W + x) * 4] - b[(y * W + x) * 4]));
      return far;
    };
    // Height from alpha, as the standard has it; full depth is 12 px high. Light from the right (90°) is azimuth 0.
    const alpha = '<feColorMatrix type="matrix" values="0 0 0 0 1  0 0 0 0 1  0 0 0 0 1  1 0 0 0 0"/>';
    const light = (azimuth: number) =>
      `${alpha}<feDiffuseLighting surfaceScale="6" diffuseConstant="${0.5 / Math.sin((40 * Math.PI) / 180)}" lighting-color="#fff"><feDistantLight azimuth="${azimuth}" elevation="40"/></feDiffuseLighting>`;
    const relief = { kind: 'relief', map: 'own', channel: 'luma', depth: 0.5, elevation: 40, soften: 0 };
    const shift = '<feDisplacementMap in="SourceGraphic" in2="SourceGraphic" scale="60" xChannelSelector="R" yChannelSelector="R"/>';
    const drape = { kind: 'drape', map: 'own', channel: 'luma', level: 0.5, amountX: 60, amountY: 60, blur: 0, edge: 'duplicate' };
    // Light: what lies below times 1 + amount · (2 · lit − 1), and gloss less that of level ground, put together by the standard's own arithmetic.
    const lit = {
      kind: 'light',
      map: 'own',
      channel: 'luma',
      depth: 0.5,
      elevation: 40,
      direction: 90,
      soften: 0,
      polish: 0.5,
      amount: 0.5,
      gloss: 0,
    };
    const diffuse = `${light(0)}<feComposite in="SourceGraphic" operator="arithmetic" k1="1" k2="0.5" k3="0" k4="0"/>`;
    const [up, gloss, exponent] = [(40 * Math.PI) / 180, 0.9, 33];
    const flat = ((Math.sin(up) + 1) / Math.hypot(Math.cos(up), Math.sin(up) + 1)) ** exponent;
    const specular = `${alpha}<feSpecularLighting surfaceScale="6" specularConstant="1" specularExponent="${exponent}" lighting-color="#fff"><feDistantLight azimuth="0" elevation="40"/></feSpecularLighting><feColorMatrix type="matrix" values="0 0 0 1 0  0 0 0 1 0  0 0 0 1 0  0 0 0 0 1"/><feComposite in2="SourceGraphic" operator="arithmetic" k1="0" k2="${gloss}" k3="1" k4="${-gloss * flat}"/>`;
    // Emboss: one end of an offset of six pixels less the other.
    const emboss =
      '<feConvolveMatrix order="7,1" kernelMatrix="-0.6 0 0 0 0 0 0.6" divisor="1" bias="0.5" preserveAlpha="true" edgeMode="duplicate"/>';
    const { machine, heap } = engine.pool;
    const at = heap.take(2 * W * H * 4 + 64);
    for (let i = 0; i < W * H; i++) machine.floats[at / 4 + i] = image.data[4 * i] / 255;
    machine.kernels.emboss(at, at + W * H * 4, W, H, 6, 0, 0.6, 0);
    const embossed = Uint8Array.from({ length: W * H * 4 }, (_, i) =>
      Math.round(255 * Math.min(1, Math.max(0, machine.floats[at / 4 + W * H + (i >> 2)]))),
    );
    return {
      diffuse: most(await ours(lit), await theirs(diffuse), 2),
      specular: most(await ours({ ...lit, amount: 0, gloss }), await theirs(specular), 2),
      embossed: most(embossed, await theirs(emboss), 4),
      glossy: most(await theirs(specular), image.data, 2),
      right: most(await ours({ ...relief, direction: 90 }), await theirs(light(0)), 2),
      bottomLeft: most(await ours({ ...relief, direction: 225 }), await theirs(light(135)), 2),
      shifted: most(await ours(drape), await theirs(shift), 32),
      // The check is of something: what the filters do is far from what they start from.
      moved: most(await theirs(shift), image.data, 32),
    };
  });
  expect(off.moved).toBeGreaterThan(10);
  expect(off.glossy).toBeGreaterThan(6);
  expect(off.diffuse).toBeLessThanOrEqual(2);
  expect(off.specular).toBeLessThanOrEqual(2);
  expect(off.embossed).toBeLessThanOrEqual(1);
  expect(off.right).toBeLessThanOrEqual(1);
  expect(off.bottomLeft).toBeLessThanOrEqual(1);
  expect(off.shifted).toBeLessThanOrEqual(1);
});
