import { contextOn, grainOf } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { highestOctave } from '@/testing/octave';
import { Drafts, DRAFT_WORK } from '../materials/drafts';
import { fillPicture } from './enlarged';
import { laySchema } from './lay';

const bench = testBench(420);
const { machine, scratch } = bench;
const SIDE = 768;
const room = bench.take(200 * 2 ** 20);
beforeEach(() => scratch.reset());

/** A part of a made material as it is at this many pixels: what a reduced scan of it has lost is known. */
const SHEET = 2048;
const drafts = new Drafts(machine);
const free = { at: bench.take(DRAFT_WORK), bytes: DRAFT_WORK };
function sheet(id: string): Uint8Array {
  const order = { id, seed: 5, params: {}, aspect: 1, size: SHEET };
  const cost = drafts.cost(order, free);
  const work = { at: room, bytes: Math.max(cost.work, cost.coarseWork) };
  const [coarse, at] = [work.at + work.bytes, work.at + work.bytes + cost.coarse];
  drafts.coarse(order, coarse, work);
  drafts.window(order, { x: 320, y: 256, width: SIDE, height: SIDE }, coarse, at, SIDE, work);
  return machine.bytes.slice(at, at + SIDE * SIDE * 4);
}

/** Reduced by a whole factor, as a scan of fewer pixels would be. */
function reduced(pixels: Uint8Array, by: number) {
  const side = SIDE / by;
  return bench.picture(side, side, (x, y) =>
    [0, 1, 2].map((c) => {
      let sum = 0;
      for (let j = 0; j < by; j++) for (let i = 0; i < by; i++) sum += pixels[((y * by + j) * SIDE + x * by + i) * 4 + c];
      return Math.round(sum / (by * by));
    }),
  );
}

const photo = bench.picture(SIDE, SIDE, () => [128, 128, 128]);
const whole = { x: 0, y: 0, width: SIDE, height: SIDE };

const mapOf = (picture: ReturnType<typeof reduced>) => grainOf(bench, picture);

function drawn(
  picture: ReturnType<typeof reduced>,
  goesOn: { amount: number; map?: typeof picture } | undefined,
  lay: object = {},
  region = whole,
): Uint8Array {
  const tile = scratch.tile(region);
  fillPicture(contextOn(bench, photo), tile, { picture, goesOn }, laySchema.parse(lay));
  const out = new Uint8Array(tile.count * 4);
  for (let c = 0; c < 4; c++)
    for (let i = 0; i < tile.count; i++) out[4 * i + c] = Math.round(255 * machine.floats[(tile.ptr + c * tile.stride) / 4 + i]);
  scratch.reset();
  return out;
}

const mean = (pixels: Uint8Array) => pixels.reduce((sum, v, i) => (i % 4 === 1 ? sum + v : sum), 0) / (pixels.length / 4);

describe.each(['paper.cold-press', 'cloth.linen', 'masonry.plaster', 'skin.grain'])('a scan of %s', (id) => {
  const native = sheet(id);
  const sharp = highestOctave(native, SIDE, whole);

  it.each([2, 3, 4])('enlarged %d times has about the fine grain that was lost, in place', (by) => {
    const picture = reduced(native, by);
    const plain = drawn(picture, undefined);
    const grained = drawn(picture, { amount: 1, map: mapOf(picture) });
    expect(highestOctave(plain, SIDE, whole)).toBeLessThan(0.65 * sharp);
    const share = highestOctave(grained, SIDE, whole) / sharp;
    expect(share).toBeGreaterThan(0.6);
    expect(share).toBeLessThan(1.6);
    // It makes nothing lighter or darker.
    expect(Math.abs(mean(grained) - mean(plain))).toBeLessThan(0.4);
  });
});

describe('enlarging', () => {
  const native = sheet('paper.laid');
  const picture = reduced(native, 3);
  const map = mapOf(picture);

  it('changes nothing up to 1.3 times', () => {
    const little = { scale: 1 / 3 + 0.05, fit: 'cover' };
    expect(Buffer.compare(drawn(picture, { amount: 1, map }, little), drawn(picture, undefined, little))).toBe(0);
  });

  it('gives the same in two parts as in one', () => {
    const all = drawn(picture, { amount: 1, map }, { turn: 17 });
    const part = { x: 200, y: 130, width: 96, height: 64 };
    const some = drawn(picture, { amount: 1, map }, { turn: 17 }, part);
    for (let y = 0; y < part.height; y++)
      expect(Buffer.compare(some.slice(y * 384, y * 384 + 384), all.slice(((y + 130) * SIDE + 200) * 4, ((y + 130) * SIDE + 296) * 4))).toBe(0);
  });

  it('keeps the grain on the picture when that is turned', () => {
    const upright = drawn(picture, { amount: 1, map });
    const turned = drawn(picture, { amount: 1, map }, { turn: 180 });
    let most = 0;
    for (let i = 0; i < SIDE * SIDE; i++) most = Math.max(most, Math.abs(upright[4 * i + 1] - turned[4 * (SIDE * SIDE - 1 - i) + 1]));
    expect(most).toBeLessThanOrEqual(2);
  });

  it('adds as much as is asked for, and nothing at 0', () => {
    const octave = (amount: number) => highestOctave(drawn(picture, { amount, map }), SIDE, whole);
    expect(octave(0)).toBeLessThan(octave(0.5));
    expect(octave(0.5)).toBeLessThan(octave(1));
    expect(octave(0)).toBe(highestOctave(drawn(picture, { amount: 0 }), SIDE, whole));
  });

  it('in perspective the grain is on the picture too', () => {
    const corners = [
      [0, 0.1],
      [1, 0],
      [1, 1],
      [0, 0.9],
    ];
    const [with1, without] = [drawn(picture, { amount: 1, map }, { corners }), drawn(picture, { amount: 0 }, { corners })];
    const middle = { x: 200, y: 200, width: 300, height: 300 };
    expect(highestOctave(with1, SIDE, middle)).toBeGreaterThan(1.3 * highestOctave(without, SIDE, middle));
  });
});

it('Catmull–Rom keeps every curve of the second degree (Keys 1981, third order)', () => {
  const curve = (x: number, y: number) => 40 + 2.5 * x + 0.5 * y + 0.0625 * x * x - 0.03125 * x * y;
  const small = bench.picture(48, 48, (x, y) => [0, 1, 2].map(() => Math.round(curve(x + 0.5, y + 0.5) * 1)));
  const out = drawn(small, { amount: 0 });
  const by = SIDE / 48;
  let worst = 0;
  for (let y = 3 * by; y < 30 * by; y += 5)
    for (let x = 3 * by; x < 30 * by; x += 7) worst = Math.max(worst, Math.abs(out[(y * SIDE + x) * 4 + 1] - curve((x + 0.5) / by, (y + 0.5) / by)));
  // The pixels are rounded, and a cubic may add up to a quarter to that.
  expect(worst).toBeLessThan(1.3);
});

it('the grain of noise is its own deviation, red, green and blue apart', () => {
  let s = 5;
  const gauss = () => {
    let sum = 0;
    for (let k = 0; k < 12; k++) sum += (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 4294967296;
    return sum - 6;
  };
  const noise = bench.picture(256, 256, () => [128 + 3 * gauss(), 128 + 6 * gauss(), 128 + 9 * gauss()].map(Math.round));
  const map = mapOf(noise);
  const cells = map.width * map.height;
  const found = [0, 1, 2, 3].map((c) => {
    let sum = 0;
    for (let i = 0; i < cells; i++) sum += machine.bytes[map.levels[0] + 4 * i + c] / cells;
    return sum;
  });
  // The highest octave has three quarters of white noise’s variance, and each coarser one half of the deviation.
  [3, 6, 9].forEach((deviation, c) => expect(found[c] / 8 / (deviation * Math.sqrt(0.75))).toBeCloseTo(1, 1));
  expect(found[3]).toBe(255);
});
