import type { Region } from '../core/image/tile';

/** Edges that are looked at, and how far to either side their ends are looked for. */
const MOST = 200;
const REACH = 4;
/** Levels from pixel to pixel that make an edge. */
const LEAST = 10;

/**
 * How wide the sharpest edges of a part of an RGBA8 picture are, in pixels: the whole difference across an edge over its steepest step, as a median of green.
 * A step that falls within one pixel has 1 to 2. NaN where there is no edge.
 */
export function edgeWidth(pixels: Uint8Array, pitch: number, { x, y, width, height }: Region): number {
  const at = (i: number, j: number) => pixels[(j * pitch + i) * 4 + 1];
  const edges: { i: number; j: number; steep: number; dx: number; dy: number }[] = [];
  for (let j = y + REACH; j < y + height - REACH - 1; j++)
    for (let i = x + REACH; i < x + width - REACH - 1; i++) {
      const [dx, dy] = [at(i + 1, j) - at(i, j), at(i, j + 1) - at(i, j)];
      const steep = Math.hypot(dx, dy);
      if (steep >= LEAST) edges.push({ i, j, steep, dx: dx / steep, dy: dy / steep });
    }
  edges.sort((a, b) => b.steep - a.steep);
  const widths = edges.slice(0, MOST).map(({ i, j, steep, dx, dy }) => {
    const along = Array.from({ length: 2 * REACH + 1 }, (_, k) => at(Math.round(i + (k - REACH) * dx), Math.round(j + (k - REACH) * dy)));
    return (Math.max(...along) - Math.min(...along)) / steep;
  });
  return widths.length > 0 ? widths.sort((a, b) => a - b)[widths.length >> 1] : NaN;
}
