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

/** Fills every level but the first from the one before it. */
export function buildLevels({ kernels }: Machine, picture: Picture): void {
  let { width, height } = picture;
  for (let l = 1; l < picture.levels.length; l++) {
    kernels.halve(picture.levels[l - 1], width, height, picture.levels[l]);
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
