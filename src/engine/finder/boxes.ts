import type { Models } from './models';

/** A square picture in which faces are looked for: its upper left corner and side, in pixels of the photo. */
export interface Window {
  x: number;
  y: number;
  side: number;
}

/** A face as the detector sees it, in pixels of the photo: `angle` in radians clockwise from upright, by its eyes. */
export interface Box {
  x: number;
  y: number;
  size: number;
  angle: number;
  score: number;
  /** Where it sees the person's right eye, left eye, nose and mouth. */
  marks: readonly (readonly [number, number])[];
}

const SIDE = 256;
/** Cells of the detector: 16 × 16 with two anchors each, then 8 × 8 with six. */
const grids = [
  { cells: 16, anchors: 2 },
  { cells: 8, anchors: 6 },
];

/** Faces in one window over a score of `least`, before those of other windows are compared with them. */
export function decodeBoxes({ scores, boxes }: Awaited<ReturnType<Models['boxes']>>, { x, y, side }: Window, least: number): Box[] {
  const k = side / SIDE;
  const found: Box[] = [];
  let i = 0;
  for (const { cells, anchors } of grids) {
    const pitch = SIDE / cells;
    for (let cell = 0; cell < cells * cells; cell++) {
      const ax = ((cell % cells) + 0.5) * pitch;
      const ay = (Math.floor(cell / cells) + 0.5) * pitch;
      for (let a = 0; a < anchors; a++, i++) {
        const score = 1 / (1 + Math.exp(-scores[i]));
        if (score < least) continue;
        const [dx, dy, w, h, ...points] = boxes.subarray(i * 16, i * 16 + 12);
        const marks = [0, 2, 4, 6].map((p) => [x + (ax + points[p]) * k, y + (ay + points[p + 1]) * k] as const);
        const angle = Math.atan2(points[3] - points[1], points[2] - points[0]);
        found.push({ x: x + (ax + dx) * k, y: y + (ay + dy) * k, size: Math.max(w, h) * k, angle, score, marks });
      }
    }
  }
  return apart(found);
}

/** Share of two squares' union that both cover. */
export function overlap(a: Pick<Box, 'x' | 'y' | 'size'>, b: Pick<Box, 'x' | 'y' | 'size'>): number {
  const side = (p: number, q: number) => Math.min(p + a.size / 2, q + b.size / 2) - Math.max(p - a.size / 2, q - b.size / 2);
  const [w, h] = [side(a.x, b.x), side(a.y, b.y)];
  if (w <= 0 || h <= 0) return 0;
  return (w * h) / (a.size * a.size + b.size * b.size - w * h);
}

/** The surest of each heap of boxes that cover each other. */
export function apart<T extends Box>(boxes: readonly T[], most = 0.3): T[] {
  const kept: T[] = [];
  for (const box of [...boxes].sort((a, b) => b.score - a.score)) if (kept.every((k) => overlap(k, box) < most)) kept.push(box);
  return kept;
}

/** The whole photo as one square. */
export function wholeWindow(width: number, height: number): Window {
  const side = Math.max(width, height);
  return { x: (width - side) / 2, y: (height - side) / 2, side };
}

/** Parts of a larger photo: a small face is missed in a small picture of the whole. Squares of 0.7 of the short side that overlap. */
export function partWindows(width: number, height: number): Window[] {
  if (Math.max(width, height) < 640) return [];
  const side = Math.min(width, height) * 0.7;
  const along = (length: number) => {
    const count = Math.ceil((length - side) / (side * 0.85)) + 1;
    return Array.from({ length: count }, (_, i) => ((length - side) * i) / Math.max(1, count - 1));
  };
  return along(height).flatMap((y) => along(width).map((x) => ({ x, y, side })));
}
