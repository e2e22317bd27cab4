import type { Machine } from './machine';

/** An RGBA picture in kernel memory, 8 or 16 bits a channel, with its mip levels behind it: level l is ⌈w / 2^l⌉ × ⌈h / 2^l⌉. */
export interface Picture {
  width: number;
  height: number;
  /** Addresses of the levels, the full size first. */
  levels: number[];
  /** 16 bits a channel. */
  deep?: boolean;
}

export const pixelBytes = (deep = false): number => (deep ? 8 : 4);

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

const levelBytes = ([w, h]: [number, number], deep?: boolean) => Math.ceil((w * h * pixelBytes(deep)) / 16) * 16;

/** Bytes of a picture with all its levels, each aligned to 16. */
export function pictureBytes(width: number, height: number, most?: number, deep?: boolean): number {
  return levelSizes(width, height, most).reduce((sum, size) => sum + levelBytes(size, deep), 0);
}

/** Describes a picture laid out from `at` by `pictureBytes`. */
export function pictureAt(at: number, width: number, height: number, most?: number, deep?: boolean): Picture {
  const levels: number[] = [];
  for (const size of levelSizes(width, height, most)) {
    levels.push(at);
    at += levelBytes(size, deep);
  }
  return deep ? { width, height, levels, deep } : { width, height, levels };
}

/** Fills every level but the first from the one before it; where only some rows of the first have changed, only what depends on them. */
export function buildLevels({ kernels }: Machine, picture: Picture, top = 0, bottom = picture.height): void {
  let { width, height } = picture;
  const size = pixelBytes(picture.deep);
  const halve = picture.deep ? kernels.halveDeep : kernels.halve;
  for (let l = 1; l < picture.levels.length; l++) {
    // Whole pairs of rows: a band of them is halved as a picture of its own.
    const first = top >> 1;
    const last = Math.min(halved(height), halved(bottom));
    const rows = Math.min(height, 2 * last) - 2 * first;
    if (rows > 0) halve(picture.levels[l - 1] + first * 2 * width * size, width, rows, picture.levels[l] + first * halved(width) * size);
    [top, bottom] = [first, last];
    width = halved(width);
    height = halved(height);
  }
}

/** Splits a picture of 16 bits, with all its levels, into its high bytes and its low ones. */
export function splitPicture({ kernels }: Machine, from: Picture, high: Picture, low: Picture): void {
  from.levels.forEach((at, l) => {
    const [width, height] = levelSize(from, l);
    kernels.splitWords(at, high.levels[l], low.levels[l], width * height * 4);
  });
}

export function levelSize(picture: Picture, level: number): [number, number] {
  let { width, height } = picture;
  for (let l = 0; l < level; l++) {
    width = halved(width);
    height = halved(height);
  }
  return [width, height];
}

/** One level of a picture. */
export interface Level {
  level: number;
  at: number;
  width: number;
  height: number;
}

/** The largest level of a picture whose long side is at most so many pixels; its smallest when all are larger. */
export function levelUpTo(picture: Picture, side: number): Level {
  let level = 0;
  while (level + 1 < picture.levels.length && Math.max(...levelSize(picture, level)) > side) level++;
  const [width, height] = levelSize(picture, level);
  return { level, at: picture.levels[level], width, height };
}

/** A small copy of a picture as values 0..1 of red, green, blue, alpha: the largest level whose long side is at most `side`. */
export function smallCopy(machine: Machine, picture: Picture, side: number): { width: number; height: number; pixels: Float32Array } {
  const { at, width, height } = levelUpTo(picture, side);
  const { bytes } = machine;
  const values = picture.deep ? new Uint16Array(bytes.buffer, at, width * height * 4) : bytes.subarray(at, at + width * height * 4);
  const most = picture.deep ? 65535 : 255;
  return { width, height, pixels: Float32Array.from(values, (v) => v / most) };
}
