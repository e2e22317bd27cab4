import type { Spot } from './schema';

/** A stroke in pixels of the picture. */
export interface Path {
  points: [x: number, y: number][];
  radius: number;
}

/** A spot's stroke in pixels of a picture. */
export function pathOf({ points, size }: Pick<Spot, 'points' | 'size'>, { width, height }: { width: number; height: number }): Path {
  return { points: points.map(([x, y]) => [x * width, y * height]), radius: Math.max(1, (size * Math.max(width, height)) / 4000) };
}
