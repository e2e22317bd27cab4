import type { Machine } from './machine';

/** An RGBA8 picture in kernel memory with its mip levels behind it: level l is ⌈w / 2^l⌉ × ⌈h / 2^l⌉. */
export interface Picture {
  width: number;
  height: number;
  /** Addresses of the levels, the full size first. */
  levels: number[];
}

const halved = (n: number) => (n + 1) >> 1;

/** Sizes of all mip levels down to one where the longer side is at most 4. */
export function levelSizes(width: number, height: number, most = Infinity): [number, number][] {
  const sizes: [number, number][] = [[width, height]];
  while (sizes.length < most && Math.max(width, height) > 4) {
    width = halved(width);
    height = halved(height);
    sizes.push([width, height]);
  }
  return sizes;
}

/** Bytes of a picture with all its levels, each aligned to 16. */
export function pictureBytes(width: number, height: number, most?: number): number {
  return levelSizes(width, height, most).reduce((sum, [w, h]) => sum + Math.ceil((w * h * 4) / 16) * 16, 0);
}

/** Describes a picture laid out from `at` by `pictureBytes`. */
export function pictureAt(at: number, width: number, height: number, most?: number): Picture {
  const levels: number[] = [];
  for (const [w, h] of levelSizes(width, height, most)) {
    levels.push(at);
    at += Math.ceil((w * h * 4) / 16) * 16;
  }
  return { width, height, levels };
}

/** Fills every level but the first from the one before it; where only some rows of the first have changed, only what depends on them. */
export function buildLevels({ kernels }: Machine, picture: Picture, top = 0, bottom = picture.height): void {
  let { width, height } = picture;
  for (let l = 1; l < picture.levels.length; l++) {
    // Whole pairs of rows: a band of them is halved as a picture of its own.
    const first = top >> 1;
    const last = Math.min(halved(height), halved(bottom));
    const rows = Math.min(height, 2 * last) - 2 * first;
    if (rows > 0) kernels.halve(picture.levels[l - 1] + first * 2 * width * 4, width, rows, picture.levels[l] + first * halved(width) * 4);
    [top, bottom] = [first, last];
    width = halved(width);
    height = halved(height);
  }
}

export function levelSize(picture: Picture, level: number): [number, number] {
  let { width, height } = picture;
  for (let l = 0; l < level; l++) {
    width = halved(width);
    height = halved(height);
  }
  return [width, height];
}
