import { pullTile } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { GRID } from '../guards/finding';
import { addMark, irisMarks, recolourMarks } from '../piece/marks';
import { hasPainting, withoutPainting } from '../piece/recipe';
import { setReady } from '../piece/rebase';
import { coatSchema, pieceSchema, type Coat } from '../piece/schema';
import { readySchema } from '../ready/schema';
import { markSchema } from '../strokes/schema';
import { tornOutline, ruledLines } from './borders';
import { dropsOf } from './splatter';

const bench = testBench(96);
const [W, H] = [400, 200];
const photo = bench.picture(W, H, () => [128, 128, 128]);

/** Levels of red, green and blue at a pixel of a coat on mid grey. */
function drawn(source: object, frame: { w: number; h: number } = { w: W, h: H }, coat: Partial<Coat> = {}) {
  const tile = pullTile(bench, { photo, coats: [coatSchema.parse({ id: 'a', source, guards: 0, ...coat })] });
  const values = [0, 1, 2].map((c) =>
    bench.machine.floats.slice((tile.ptr + c * tile.stride) / 4, (tile.ptr + c * tile.stride) / 4 + frame.w * frame.h),
  );
  return (x: number, y: number) => values.map((plane) => Math.round(plane[y * frame.w + x] * 255));
}
const across = (y: number, more: object = {}) => ({
  points: [
    [0.1, y, 1],
    [0.9, y, 1],
  ],
  size: 100,
  hardness: 1,
  ...more,
});

describe('marks', () => {
  it('have the colour of their coat, or their own, and lie over those before', () => {
    const strokes = [
      across(0.5),
      across(0.5, {
        points: [
          [0.5, 0.1, 1],
          [0.5, 0.9, 1],
        ],
        colour: '#0000ff',
      }),
    ];
    const at = drawn({ kind: 'strokes', colour: '#ff0000', strokes });
    expect(at(100, 100)).toEqual([255, 0, 0]);
    expect(at(200, 100)).toEqual([0, 0, 255]);
    expect(at(200, 50)).toEqual([0, 0, 255]);
    expect(at(100, 20)).toEqual([128, 128, 128]);
  });
  it('at part strength are mixed with what lies beneath by the source-over formula (W3C Compositing, Level 1)', () => {
    const strokes = [across(0.5, { strength: 0.5 }), across(0.5, { strength: 0.5, colour: '#00ff00' })];
    const at = drawn({ kind: 'strokes', colour: '#ff0000', strokes });
    const half = (below: number[], top: number[]) => below.map((v, c) => v / 2 + top[c] / 2);
    half(half([128, 128, 128], [255, 0, 0]), [0, 255, 0]).forEach((v, c) => expect(Math.abs(at(200, 100)[c] - v)).toBeLessThanOrEqual(1));
  });
  it('are taken away by an eraser, wholly or by its strength', () => {
    const erase = (strength: number) =>
      across(0.5, {
        points: [
          [0.5, 0.1, 1],
          [0.5, 0.9, 1],
        ],
        does: 'take',
        strength,
      });
    expect(drawn({ kind: 'strokes', colour: '#ff0000', strokes: [across(0.5), erase(1)] })(200, 100)).toEqual([128, 128, 128]);
    const [r, g] = drawn({ kind: 'strokes', colour: '#ff0000', strokes: [across(0.5), erase(0.5)] })(200, 100);
    expect([Math.abs(r - 192) < 2, Math.abs(g - 64) < 2]).toEqual([true, true]);
  });
  it('are recoloured together, those with a colour of their own too', () => {
    const piece = pieceSchema.parse({
      ...empty,
      coats: [{ id: 'a', source: { kind: 'strokes', strokes: [across(0.5), across(0.2, { colour: '#0000ff' })] } }],
    });
    const next = recolourMarks('a', '#00ff00')(addMark('a', markSchema.parse(across(0.8)))(piece));
    expect(next.coats[0].source).toMatchObject({ colour: '#00ff00', strokes: [{}, {}, {}] });
    const at = drawn(next.coats[0].source);
    for (const y of [40, 100, 160]) expect(at(200, y)).toEqual([0, 255, 0]);
  });
  it('stay on the same points of the photo under a late crop', () => {
    const piece = pieceSchema.parse({ ...empty, coats: [{ id: 'a', source: { kind: 'strokes', strokes: [across(0.5)] } }] });
    const cropped = setReady(piece, readySchema.parse({ crop: { x: 0.25, y: 0.25, w: 0.5, h: 0.5 } }));
    const [mark] = (cropped.coats[0].source as unknown as { strokes: { points: number[][]; size: number }[] }).strokes;
    expect(mark.points.map((p) => p.map((v) => Math.round(v * 1000) / 1000))).toEqual([
      [-0.3, 0.5, 1],
      [1.3, 0.5, 1],
    ]);
    expect(mark.size).toBeCloseTo(200, 3);
  });
  it('raised are lighter where the light comes from and darker on the other side; pressed in the other way around', () => {
    const edges = (relief: number) => {
      const at = drawn({ kind: 'strokes', colour: '#808080', relief, lightFrom: 0, strokes: [across(0.5)] });
      // The mark reaches from 90 to 110: ten pixels are 50 u.
      return [at(200, 90)[0], at(200, 109)[0]];
    };
    const [top, bottom] = edges(1);
    expect([top > 140, bottom < 110]).toEqual([true, true]);
    const [above, under] = edges(-1);
    expect([above < 110, under > 140]).toEqual([true, true]);
  });
  it('glow outside themselves, falling off, and are as they were inside', () => {
    const at = drawn({ kind: 'strokes', colour: '#ff0000', glow: 1, glowSize: 100, glowColour: '#ffffff', strokes: [across(0.5)] });
    expect(at(200, 100)).toEqual([255, 0, 0]);
    const along = [112, 116, 120, 126, 134].map((y) => at(200, y)[1]);
    along.slice(1).forEach((v, i) => expect(v).toBeLessThan(along[i] + 1));
    expect([along[0] > 200, at(200, 180)[1]]).toEqual([true, 128]);
  });
  it('stray in size, turn and place by their seed alone', () => {
    const [one, same, other] = [3, 3, 4].map((seed) =>
      drawn({ kind: 'strokes', strokes: [across(0.5, { jitter: 1, varySize: 1, spacing: 0.5, seed })] }),
    );
    const row = (at: ReturnType<typeof drawn>) => Array.from({ length: W }, (_, x) => at(x, 100)[0]);
    expect(row(one)).toEqual(row(same));
    expect(row(one)).not.toEqual(row(other));
  });
  it('belong to their photo: a look leaves them out unless asked', () => {
    const piece = pieceSchema.parse({
      ...empty,
      coats: [
        { id: 'a', source: { kind: 'strokes' } },
        { id: 'b', source: { kind: 'border' } },
      ],
    });
    expect(hasPainting(piece)).toBe(true);
    expect(withoutPainting(piece).coats.map((c) => c.id)).toEqual(['b']);
  });
});

const empty = { dermatex: 1, id: 'p', name: 'P', created: 1, changed: 1, photo: { key: 'k', name: 'k', width: 400, height: 200 } };

describe('splatter', () => {
  it('has as many drops as asked, and their own satellites; most are small (power law of −2.6, painterly practice)', () => {
    const drops = dropsOf({ over: 'throw', count: 500, size: 13, spread: 0.5, direction: 90, seed: 2 });
    const radii = Array.from({ length: drops.length / 8 }, (_, i) => drops[i * 8 + 2]);
    expect(radii.length).toBeGreaterThanOrEqual(500);
    expect(Math.max(...radii)).toBeLessThanOrEqual(13);
    expect(radii.filter((r) => r < 2).length / radii.length).toBeGreaterThan(0.6);
    // To the right, within its fan.
    const xs = Array.from({ length: drops.length / 8 }, (_, i) => drops[i * 8]);
    expect(xs.filter((x) => x > -40).length / xs.length).toBeGreaterThan(0.97);
  });
  it('lies on the photo in its colour, and nowhere else', () => {
    const at = drawn({ kind: 'splatter', colour: '#ff0000', x: 0.5, y: 0.5, size: 60, count: 1200, rim: 0 }, undefined, { blend: 'normal' });
    const all = Array.from({ length: W * H }, (_, i) => at(i % W, Math.floor(i / W)));
    const red = all.filter(([r, g]) => r > 200 && g < 60).length;
    expect(red).toBeGreaterThan(50);
    expect(all.filter(([r, g, b]) => r === 128 && g === 128 && b === 128).length).toBeGreaterThan(W * H * 0.5);
  });
});

describe('a border', () => {
  it('ruled without wobble is a line of its width at its inset', () => {
    const lines = ruledLines({ inset: 100, width: 10, lines: 1, gap: 12, wobble: 0, seed: 1 }, { width: 2000, height: 1000 });
    const corners = Array.from({ length: lines.length / 4 }, (_, i) => [lines[i * 4], lines[i * 4 + 1], Math.abs(lines[i * 4 + 2])]);
    for (const [x, y, half] of corners) {
      expect(Math.min(Math.abs(x - 100), Math.abs(x - 1900), Math.abs(y - 100), Math.abs(y - 900))).toBeLessThan(1e-3);
      expect(half).toBeCloseTo(5, 5);
    }
  });
  it('torn covers what lies outside, and shows the paper’s fibres along its edge', () => {
    const at = drawn({ kind: 'border', style: 'torn', inset: 200, wobble: 0.2, colour: '#000000' });
    expect(at(5, 100)).toEqual([0, 0, 0]);
    expect(at(200, 100)).toEqual([128, 128, 128]);
    const row = Array.from({ length: 80 }, (_, x) => at(x, 100)[0]);
    // Half a pixel wide at this size, over grey.
    expect(Math.max(...row)).toBeGreaterThan(170);
    const [outer, inner] = [false, true].map((core) =>
      tornOutline({ inset: 200, width: 1, lines: 1, gap: 1, wobble: 0.2, seed: 1 }, { width: 2000, height: 1000 }, core),
    );
    expect(inner.length).toBe(outer.length);
  });
  it('brushed has colour along all four sides and none in the middle', () => {
    const at = drawn({ kind: 'border', style: 'brushed', inset: 250, colour: '#ffffff' });
    for (const [x, y] of [
      [200, 6],
      [200, 193],
      [6, 100],
      [393, 100],
    ])
      expect(at(x, y)[0]).toBeGreaterThan(200);
    expect(at(200, 100)[0]).toBe(128);
  });
});

it('a signature stands in its corner, as wide as asked, and nothing without lines', () => {
  const lines = [
    [
      [0, 0, 1],
      [1, 0, 1],
    ],
  ];
  const at = drawn({ kind: 'signature', lines, size: 400, width: 20, margin: 100, colour: '#ffffff' });
  // 100 u are 20 pixels; the line is 80 pixels long and ends 20 from the right and the bottom.
  for (const x of [304, 340, 376]) expect(at(x, 180)[0]).toBe(255);
  expect([at(290, 180)[0], at(390, 180)[0], at(340, 170)[0]]).toEqual([128, 128, 128]);
  expect(drawn({ kind: 'signature' })(340, 180)).toEqual([128, 128, 128]);
});

it('irises are marked within the outline of each eye of faces that are certain', () => {
  const mesh = Array.from({ length: 468 * 3 }, () => 0);
  const put = (i: number, x: number, y: number) => mesh.splice(3 * i, 3, Math.round((x / 400) * 32768), Math.round((y / 400) * 32768), 0);
  const left = [263, 249, 390, 373, 374, 380, 381, 382, 362, 398, 384, 385, 386, 387, 388, 466];
  const right = [33, 7, 163, 144, 145, 153, 154, 155, 133, 173, 157, 158, 159, 160, 161, 246];
  left.forEach((p, i) => put(p, 250 + 20 * Math.cos((i * Math.PI) / 8), 80 + 8 * Math.sin((i * Math.PI) / 8)));
  right.forEach((p, i) => put(p, 150 - 20 * Math.cos((i * Math.PI) / 8), 80 + 8 * Math.sin((i * Math.PI) / 8)));
  const faces = [
    { score: 0.9, mesh },
    { score: 0.4, mesh },
  ];
  const marks = irisMarks({ version: 1, faces, person: null }, { width: 400, height: 200 });
  expect(marks.map((m) => m.points[0].slice(0, 2).map((v) => Math.round(v * 100) / 100))).toEqual([
    [0.63, 0.4],
    [0.38, 0.4],
  ]);
  // Where the iris itself was found, it is marked there: here at 90, 70 with a radius of 6 pixels.
  const k = GRID / 400;
  const ring = [
    [90, 70],
    [96, 70],
    [90, 64],
    [84, 70],
    [90, 76],
  ].flat();
  const irises = [...ring, ...ring].map((v) => Math.round(v * k));
  const [first] = irisMarks({ version: 1, faces: faces.map((face) => ({ ...face, irises })), person: null }, { width: 400, height: 200 });
  expect(first.points[0][0]).toBeCloseTo(90 / 400, 3);
  expect(first.points[0][1]).toBeCloseTo(70 / 200, 3);
  expect(first.size).toBeCloseTo(12 * 5, 0);
  // 42 % of an eye 40 pixels wide, at 5 u to a pixel.
  for (const { size } of marks) expect(Math.abs(size - 0.42 * 40 * 5)).toBeLessThan(1);
});
