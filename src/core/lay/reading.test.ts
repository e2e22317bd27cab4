import { apply } from '../image/projection';
import type { Region } from '../image/tile';
import { laySchema, type Size } from './lay';
import { continues, halvings, levelsOfPart, partFor, readingOf, readOn, type Reading } from './reading';

const frame = { width: 3000, height: 2000, unit: 1.5 };
const nominal: Size = { width: 1024, height: 1024 };
const square = (side: number): Size => ({ width: side, height: side });
/** A floor that recedes from 1.4 times the photo's width to a third of it. */
const floor = laySchema.parse({
  corners: [
    [0.33, 0.4],
    [0.66, 0.4],
    [1.2, 1],
    [-0.2, 1],
  ],
});
const flat = laySchema.parse({ turn: 20 });
const reading = (lay = floor, held = square(4200)) => readingOf(lay, nominal, frame, held) as Reading;
const area = (region: Region | null) => (region ? region.width * region.height : 0);

it('reads all that the pixels of a region show, flat and in perspective', () => {
  for (const [lay, region] of [
    [flat, { x: 100, y: 200, width: 400, height: 300 }],
    [floor, { x: 1300, y: 1500, width: 256, height: 256 }],
    [floor, { x: 400, y: 1700, width: 128, height: 64 }],
  ] as const) {
    const { map } = reading(lay);
    const box = readOn(reading(lay), region) as Region;
    for (let y = region.y; y <= region.y + region.height; y += 16)
      for (let x = region.x; x <= region.x + region.width; x += 16) {
        const [u, v] = apply(map, [x, y]);
        expect(u > box.x && u < box.x + box.width && v > box.y && v < box.y + box.height).toBe(true);
      }
    // Some pixels around it, and no more.
    const tight = readOn(reading(lay), { ...region, width: 1, height: 1 }) as Region;
    expect(Math.max(tight.width, tight.height)).toBeLessThan(32);
  }
});

it('reads the whole picture where the sheet is drawn much smaller, far away and beyond the horizon', () => {
  expect(readingOf(flat, nominal, frame, square(9000))).toBeNull();
  expect(readingOf(floor, nominal, { ...frame, width: 600, height: 400 }, square(4200))).toBeNull();
  expect(readOn(reading(), { x: 1400, y: 810, width: 128, height: 128 })).toBeNull();
  // The floor's lines meet 1.3 % of the height above its far end.
  expect(readOn(reading(), { x: 1400, y: 100, width: 128, height: 128 })).toBeNull();
});

it('draws of a sheet in perspective what the near places of a region read, within a limit', () => {
  const region = { x: 0, y: 700, width: 3000, height: 1300 };
  const all = partFor(reading(), region);
  expect(area(all)).toBeGreaterThan(6e6);
  const some = partFor(reading(), region, 5e6);
  expect(area(some)).toBeLessThanOrEqual(5e6);
  expect(area(some)).toBeGreaterThan(1e6);
  // It is the nearest that is kept.
  const bottom = ({ y, height }: Region) => y + height;
  expect(bottom(some as Region)).toBe(bottom(all as Region));
  expect(partFor(reading(), { x: 0, y: 0, width: 500, height: 500 })).toBeNull();
});

it('halves a sheet for what lies far away, so that no pixel is enlarged', () => {
  const near = { x: 1300, y: 1800, width: 256, height: 200 };
  expect(halvings(reading(), near)).toBe(0);
  const far = { x: 1400, y: 850, width: 200, height: 64 };
  const times = halvings(reading(floor, square(5000)), far);
  expect(times).toBeGreaterThanOrEqual(1);
  // One sheet pixel or more for each of the drawing's, and less than two where it lies nearest.
  const { map } = reading(floor, square(5000 / 2 ** times));
  const [a, b] = [apply(map, [1500, 913]), apply(map, [1501, 913])];
  expect(b[0] - a[0]).toBeGreaterThanOrEqual(1);
  expect(b[0] - a[0]).toBeLessThan(2.2);
  expect(halvings(reading(flat), far)).toBe(0);
});

it('has a level more in perspective, and goes on where the sheet is repeated', () => {
  expect([levelsOfPart(flat), levelsOfPart(floor)]).toEqual([2, 3]);
  expect([continues(flat), continues(laySchema.parse({ fit: 'tile' }))]).toEqual([false, true]);
});
