import { readFile, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { BadFile, inspect } from '../src/core/files/inspect';
import type { Decoded } from '../src/engine/library';

// One picture at a time: libvips' cache would only hold memory.
sharp.cache(false);

/** A mistake of the caller: one line on standard error, exit code 2. */
export class Refused extends Error {}

export async function readBytes(file: string): Promise<Buffer> {
  try {
    return await readFile(file);
  } catch {
    throw new Refused(`There is no file ${file} that can be read.`);
  }
}

/** Decodes a picture to RGBA8, or RGBA16 where that is asked for and the file has it, oriented by its Exif data and in sRGB. @throws Refused for a file that is no such picture. */
export async function readPicture(file: string, deep = false): Promise<{ data: Buffer; width: number; height: number; deep: boolean }> {
  const bytes = await readBytes(file);
  try {
    const wide = inspect(bytes, path.basename(file)).deep && deep;
    const { data, info } = await sharp(bytes, { limitInputPixels: 60e6 })
      .rotate()
      .toColourspace(wide ? 'rgb16' : 'srgb')
      .ensureAlpha()
      .raw({ depth: wide ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height, deep: wide };
  } catch (error) {
    if (error instanceof BadFile) throw new Refused(error.message);
    throw new Refused(`“${path.basename(file)}” cannot be decoded: ${(error as Error).message.split('\n')[0]}.`);
  }
}

/** Size of a picture by its header, after orientation. @throws Refused for a file that is no picture. */
export async function sizeOf(file: string): Promise<{ width: number; height: number }> {
  try {
    return inspect(await readBytes(file), path.basename(file));
  } catch (error) {
    throw new Refused((error as Error).message);
  }
}

/** A picture file for the engine: decoded when its size is asked for, dropped once it is in kernel memory. */
export async function decodeFile(file: string, write: (at: number, bytes: Uint8Array) => void, deep = false): Promise<Decoded> {
  let picture: Awaited<ReturnType<typeof readPicture>> | null = await readPicture(file, deep);
  const { width, height } = picture;
  return {
    width,
    height,
    deep: picture.deep,
    async place(at) {
      if (picture) write(at, picture.data);
      picture = null;
    },
  };
}

/** Writes RGBA8 pixels by the ending of the name: .png, .jpg or .webp. An opaque picture is written without alpha. */
export async function writePicture(file: string, pixels: Uint8Array, width: number, height: number): Promise<void> {
  const image = sharp(pixels, { raw: { width, height, channels: 4 } });
  let clear = false;
  for (let i = 3; i < pixels.length && !clear; i += 4) clear = pixels[i] < 255;
  if (!clear) image.removeAlpha();
  const ending = path.extname(file).toLowerCase();
  // Optimal Huffman tables would keep all coefficients of the picture in memory, 144 MB at 24 megapixels, to save a twentieth of the file.
  if (ending === '.jpg' || ending === '.jpeg')
    image.flatten({ background: '#fff' }).jpeg({ quality: 92, chromaSubsampling: '4:4:4', optimizeCoding: false });
  else if (ending === '.webp') image.webp({ quality: 92 });
  else image.png();
  // Written beside its place first, so that a failure leaves what was there.
  const part = `${file}.part`;
  try {
    await image.toFile(part);
    await rename(part, file);
  } catch {
    await rm(part, { force: true });
    throw new Refused(`${file} cannot be written; does its folder exist?`);
  }
}

export function checkOutputName(file: string): void {
  if (!/\.(png|jpe?g|webp)$/i.test(file)) throw new Refused(`The result must be named .png, .jpg or .webp, not ${path.basename(file)}.`);
}
