import { outline, quarteredSize, type Size } from './geometry';
import { apply, turned, type Point } from '../image/projection';
import type { Crop, Ready } from './schema';

type Geometry = Pick<Ready, 'quarter' | 'flip' | 'perspective' | 'crop'>;

/** Named shapes of a frame: width by height; null keeps what the photo has. */
export const ratios: readonly { id: string; label: string; ratio: number | null }[] = [
  { id: 'free', label: 'Free', ratio: null },
  { id: 'photo', label: 'As the photo', ratio: null },
  { id: '1:1', label: '1 : 1', ratio: 1 },
  { id: '5:4', label: '5 : 4', ratio: 5 / 4 },
  { id: '4:3', label: '4 : 3', ratio: 4 / 3 },
  { id: '3:2', label: '3 : 2', ratio: 3 / 2 },
  { id: '16:9', label: '16 : 9', ratio: 16 / 9 },
  { id: 'panorama', label: 'Panorama', ratio: 2.6 },
];

/** How far a frame of half sizes (a, b), turned about `centre`, can grow within the outline: 1 just fits, below 1 sticks out. */
export function room(edges: Point[], centre: Point, a: number, b: number, turn: number): number {
  const spin = turned(turn);
  const corners = [apply(spin, [a, b]), apply(spin, [a, -b])];
  // The frame is the same on both sides of its centre, so that two corners say all.
  let least = Infinity;
  const twice = edges.reduce((sum, [x, y], i) => sum + x * edges[(i + 1) % edges.length][1] - edges[(i + 1) % edges.length][0] * y, 0);
  const side = Math.sign(twice);
  edges.forEach(([x, y], i) => {
    const [x2, y2] = edges[(i + 1) % edges.length];
    // Inwards normal of the edge.
    const [nx, ny] = [-(y2 - y) * side, (x2 - x) * side];
    const inside = nx * (centre[0] - x) + ny * (centre[1] - y);
    const most = Math.max(...corners.map(([cx, cy]) => Math.abs(nx * cx + ny * cy)));
    least = Math.min(least, inside / Math.max(most, 1e-9));
  });
  return least;
}

const cropOf = (centre: Point, a: number, b: number, turn: number, { width, height }: Size): Crop => ({
  x: (centre[0] - a) / width,
  y: (centre[1] - b) / height,
  w: (2 * a) / width,
  h: (2 * b) / height,
  turn,
});

/** The largest frame of a shape (width / height) without empty corners. It is searched for coarsely, then ever more finely. */
export function largestFrame(photo: Size, ready: Geometry, ratio: number, turn: number): Crop {
  const size = quarteredSize(photo, ready);
  const edges = outline(photo, ready);
  let best: Point = [edges.reduce((s, p) => s + p[0], 0) / 4, edges.reduce((s, p) => s + p[1], 0) / 4];
  let most = room(edges, best, ratio, 1, turn);
  let step = Math.max(size.width, size.height) / 4;
  while (step > 0.05) {
    let better = false;
    for (let j = -1; j <= 1; j++) {
      for (let i = -1; i <= 1; i++) {
        const at: Point = [best[0] + i * step, best[1] + j * step];
        const k = room(edges, at, ratio, 1, turn);
        if (k > most + 1e-9) [best, most, better] = [at, k, true];
      }
    }
    if (!better) step /= 2;
  }
  // A hair inside, so that rounding to whole pixels leaves no empty corner.
  const k = Math.max(1, most - (turn === 0 && !ready.perspective ? 0 : 0.5));
  return cropOf(best, ratio * k, k, turn, size);
}

/** Draws a frame in about its centre until it has no empty corners; one that fits is left as it is. */
export function within(photo: Size, ready: Geometry, crop: Crop): Crop {
  const size = quarteredSize(photo, ready);
  const edges = outline(photo, ready);
  const clampTo = (v: number, list: number[]) => Math.min(Math.max(...list), Math.max(Math.min(...list), v));
  const centre: Point = [
    clampTo(
      (crop.x + crop.w / 2) * size.width,
      edges.map((p) => p[0]),
    ),
    clampTo(
      (crop.y + crop.h / 2) * size.height,
      edges.map((p) => p[1]),
    ),
  ];
  const a = (crop.w * size.width) / 2;
  const b = (crop.h * size.height) / 2;
  const k = room(edges, centre, a, b, crop.turn);
  if (k >= 1 - 1e-9) return crop;
  if (k > 0.02) return cropOf(centre, a * k, b * k, crop.turn, size);
  return largestFrame(photo, ready, a / b, crop.turn);
}

/** Whether the frame is as large as its shape and turn allow: then it follows when the turn changes. */
export function isLargest(photo: Size, ready: Geometry): boolean {
  const size = quarteredSize(photo, ready);
  const { crop } = ready;
  const largest = largestFrame(photo, ready, (crop.w * size.width) / (crop.h * size.height), crop.turn);
  return Math.abs(largest.w - crop.w) < 0.004 && Math.abs(largest.h - crop.h) < 0.004;
}

/** The readying with another turn: a frame that was as large as can be stays so, another keeps its place and is drawn in if need be. */
export function withTurn(photo: Size, ready: Ready, turn: number): Ready {
  const size = quarteredSize(photo, ready);
  const { crop } = ready;
  const crop2 = isLargest(photo, ready)
    ? largestFrame(photo, ready, (crop.w * size.width) / (crop.h * size.height), turn)
    : within(photo, ready, { ...crop, turn });
  return { ...ready, crop: crop2 };
}

/** The readying with one more quarter turn clockwise; the frame stays on what it shows. */
export function withQuarter(ready: Ready, by: 1 | -1): Ready {
  const { crop, flip } = ready;
  // A flip is done after quarter turns, so that a turn of what is seen goes the other way before it.
  const quarter = (((ready.quarter + (flip ? -by : by)) % 4) + 4) % 4;
  const [cx, cy] = [crop.x + crop.w / 2, crop.y + crop.h / 2];
  const spin = ([x, y]: [number, number]): [number, number] => (by > 0 ? [1 - y, x] : [y, 1 - x]);
  const [nx, ny] = spin([cx, cy]);
  const corners = ready.perspective?.corners.map(spin) as [Point, Point, Point, Point] | undefined;
  const order = by > 0 ? [3, 0, 1, 2] : [1, 2, 3, 0];
  return {
    ...ready,
    quarter,
    ...(corners ? { perspective: { corners: order.map((i) => corners[i]) as [Point, Point, Point, Point] } } : {}),
    crop: { x: nx - crop.h / 2, y: ny - crop.w / 2, w: crop.h, h: crop.w, turn: crop.turn },
  };
}

/** The readying mirrored left to right as it is seen. */
export function withFlip(ready: Ready): Ready {
  const { crop } = ready;
  const corners = ready.perspective?.corners.map(([x, y]) => [1 - x, y]) as [Point, Point, Point, Point] | undefined;
  return {
    ...ready,
    flip: !ready.flip,
    ...(corners ? { perspective: { corners: [corners[1], corners[0], corners[3], corners[2]] } } : {}),
    crop: { ...crop, x: 1 - crop.x - crop.w, turn: crop.turn === 0 ? 0 : -crop.turn },
  };
}
