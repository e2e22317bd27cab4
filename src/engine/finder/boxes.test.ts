import { apart, decodeBoxes, overlap, partWindows, wholeWindow } from './boxes';

const box = (x: number, y: number, size: number, score = 0.9) => ({ x, y, size, score, angle: 0, marks: [] });

it('squares overlap by intersection over union', () => {
  expect(overlap(box(0, 0, 2), box(0, 0, 2))).toBe(1);
  expect(overlap(box(0, 0, 2), box(1, 0, 2))).toBeCloseTo(2 / 6, 9);
  expect(overlap(box(0, 0, 2), box(5, 0, 2))).toBe(0);
});

it('of boxes on one face the surest stays', () => {
  const kept = apart([box(10, 10, 20, 0.5), box(11, 10, 20, 0.9), box(60, 10, 20, 0.7)]);
  expect(kept.map((b) => b.score)).toEqual([0.9, 0.7]);
});

it('boxes are read from their anchors, in pixels of the photo, with the roll of the eyes', () => {
  const count = 16 * 16 * 2 + 8 * 8 * 6;
  const scores = new Float32Array(count).fill(-9);
  const boxes = new Float32Array(count * 16);
  // The second anchor of cell (3, 2) of the fine grid: its middle at 56, 40 of 256.
  const i = (2 * 16 + 3) * 2 + 1;
  scores[i] = 2;
  boxes.set([4, -8, 50, 60, -10, 0, 10, 20], i * 16);
  // And one of the coarse grid: cell (7, 7), its middle at 240, 240.
  const j = 16 * 16 * 2 + (7 * 8 + 7) * 6;
  scores[j] = 1;
  boxes.set([0, 0, 30, 30, -5, 0, 5, 0], j * 16);
  const found = decodeBoxes({ scores, boxes }, { x: 100, y: 50, side: 512 }, 0.2);
  expect(found).toHaveLength(2);
  expect(found[0]).toMatchObject({ x: 100 + 60 * 2, y: 50 + 32 * 2, size: 120 });
  expect(found[0].angle).toBeCloseTo(Math.PI / 4, 6);
  expect(found[0].score).toBeCloseTo(1 / (1 + Math.exp(-2)), 6);
  expect(found[1]).toMatchObject({ x: 100 + 480, y: 50 + 480, size: 60, angle: 0 });
});

it('parts of a large photo cover all of it and overlap; a small one is looked at whole', () => {
  expect(wholeWindow(300, 200)).toEqual({ x: 0, y: -50, side: 300 });
  expect(partWindows(500, 400)).toEqual([]);
  for (const [w, h] of [
    [1600, 1067],
    [1200, 1500],
    [3000, 800],
  ]) {
    const windows = partWindows(w, h);
    for (let y = 5; y < h; y += 40)
      for (let x = 5; x < w; x += 40) expect(windows.some((k) => x >= k.x && y >= k.y && x <= k.x + k.side && y <= k.y + k.side)).toBe(true);
    windows.forEach((k) => expect(k.x >= -1e-9 && k.y >= -1e-9 && k.x + k.side <= w + 1e-9 && k.y + k.side <= h + 1e-9).toBe(true));
  }
});
