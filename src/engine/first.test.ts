import { firstControl, firstOf, readFirst, specOf, withFirst, type FirstValue } from '../core/first';
import { materials } from '../core/materials';
import type { FirstSpec } from '../core/materials/first';
import { newCoat } from '../core/piece/edits';
import type { Coat } from '../core/piece/schema';
import { numbers } from '@/testing/machine';
import type { Engine } from './engine';
import { nodeEngine } from './node';

jest.setTimeout(240_000);

// A photo of forms, lights and darks, with a little grain.
const W = 600;
const H = 480;
const random = numbers(5);
const photo = new Uint8Array(W * H * 4);
for (let y = 0, p = 0; y < H; y++) {
  for (let x = 0; x < W; x++, p += 4) {
    const v = 118 + 95 * Math.sin(x / 61) * Math.cos(y / 47) + 6 * random();
    photo.set([v + 14, v, v - 12, 255], p);
  }
}
let engine: Engine;
beforeAll(async () => {
  engine = await nodeEngine({ size: 2, decode: async () => ({ width: W, height: H, place: async (at) => engine.pool.write(at, photo) }) });
});
afterAll(() => engine.pool.close());

const draw = (coats: Coat[], scale = 0.5) =>
  engine.draw(
    {
      piece: { coats, strength: 1, photo: { key: 'k', name: 'k', width: W, height: H } },
      region: { x: 0, y: 0, width: W * scale, height: H * scale },
      scale,
    },
    (p) => p.slice(),
  );
/** Seen: the picture is another on the whole, or thin marks are, which are few. */
const isSeen = (a: Uint8Array, b: Uint8Array, levels = 3) =>
  a.reduce((sum, v, i) => sum + Math.abs(v - b[i]), 0) > 0.12 * a.length ||
  a.reduce((count, v, i) => count + Number(Math.abs(v - b[i]) >= levels), 0) > 30;

const coatOf = (id: string) => newCoat('a', { kind: 'material', id, seed: 3 });
function tapped(coat: Coat, spec: FirstSpec): FirstValue {
  const { shape, begins } = firstControl(spec);
  const now = readFirst(coat, spec);
  if (shape === 'colour') return '#3f6a8a';
  if (shape === 'amount') return now === 0 ? begins : 0;
  if (shape === 'switch') return now === 0 ? 1 : 0;
  return Number(now) > 0.5 ? 0.2 : 0.9;
}
/** Controls that are pressed; parameters make another material and are tested there. */
const pressed = (coat: Coat) => firstOf(coat).filter(({ control }) => control !== 'parameter' && control !== 'size');

// Issue 15: each does something seen at the first tap, and whatever was tapped before it.
it.each(materials.filter((m) => pressed(coatOf(m.id)).length > 0).map((m) => [m.id]))(
  '%s: every first control is seen, after any other too',
  async (id) => {
    const begun = coatOf(id);
    const plain = await draw([begun]);
    for (const spec of pressed(begun)) {
      const one = withFirst(begun, spec, tapped(begun, spec));
      const drawn = await draw([one]);
      // Tonal limits of a faint texture show only where the photo is very dark or light.
      expect([spec.control, isSeen(drawn, plain, spec.control === 'limits' ? 1 : 3)]).toEqual([spec.control, true]);
      for (const other of pressed(begun)) {
        if (other === spec) continue;
        const two = await draw([withFirst(one, other, tapped(one, other))]);
        expect([spec.control, other.control, isSeen(two, drawn)]).toEqual([spec.control, other.control, true]);
      }
    }
  },
);

// The measured look: dark pixels only along the sheet's cracks, brown, the ground unchanged within 2 levels.
it('craquelure as it begins darkens its cracks only, in brown, and leaves the ground', async () => {
  const begun = { ...coatOf('cracks.craquelure'), guardAmounts: undefined };
  const flat = withFirst(begun, specOf(begun, 'raised')!, 0);
  const [bare, cracked, sheet] = [
    await draw([], 1),
    await draw([flat], 1),
    await draw([{ ...coatOf('cracks.craquelure'), treatments: [], blend: 'normal' }], 1),
  ];
  let darkened = 0;
  let offCracks = 0;
  let ground = 0;
  let moved = 0;
  let [red, blue] = [0, 0];
  for (let p = 0; p < bare.length; p += 4) {
    const luma = (0.2126 * sheet[p] + 0.7152 * sheet[p + 1] + 0.0722 * sheet[p + 2]) / 255;
    const change = bare[p + 1] - cracked[p + 1];
    if (change > 12) {
      darkened++;
      if (luma > 0.85) offCracks++;
      red += cracked[p];
      blue += cracked[p + 2];
    }
    if (luma > 0.86) {
      ground++;
      if (Math.abs(change) > 2) moved++;
    }
  }
  expect(darkened).toBeGreaterThan(0.02 * W * H);
  expect(offCracks).toBe(0);
  expect(ground).toBeGreaterThan(0.3 * W * H);
  expect(moved / ground).toBeLessThan(0.001);
  expect(red).toBeGreaterThan(blue * 1.3);
});
