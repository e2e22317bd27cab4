import path from 'node:path';
import sharp, { type Sharp } from 'sharp';
import { BadFile, inspect, MEGAPIXELS } from '../src/core/files/inspect';
import { srgbProfile } from '../src/core/files/srgbProfile';
import { readBytes, Refused } from './files';

/** Whether orientation in a file's Exif data is followed: Chromium does not for WebP, and the command line draws the same picture as the page. */
const turns = (type: string): boolean => type !== 'image/webp';

/** A picture's file, looked at but not decoded. */
interface Opened {
  /** After orientation. */
  width: number;
  height: number;
  /** Whether RGBA16 is made of it, not RGBA8. */
  deep: boolean;
  /** Decodes to RGBA, oriented and in sRGB. */
  decoder: Sharp;
}

const refusal = (file: string, error: unknown) =>
  new Refused(error instanceof BadFile ? error.message : `“${path.basename(file)}” cannot be decoded: ${(error as Error).message.split('\n')[0]}.`);

/** @throws BadFile, Error for a file that is no picture that is read. */
async function open(file: string, bytes: Buffer, wantsDeep: boolean): Promise<Opened> {
  const { type, deep: isDeep } = inspect(bytes, path.basename(file));
  const image = sharp(bytes, { limitInputPixels: 1.2e6 * MEGAPIXELS });
  const { icc, width, height, autoOrient } = await image.metadata();
  // A file of ours says sRGB, and is taken as it is.
  const isOurs = icc !== undefined && Buffer.compare(icc, srgbProfile()) === 0;
  // A profile is converted to sRGB at 8 bits, as a browser does it.
  const hasProfile = icc !== undefined && !isOurs;
  const deep = isDeep && wantsDeep && !hasProfile;
  const turned = turns(type) ? image.autoOrient() : image;
  if (isOurs) turned.keepIccProfile();
  // sharp takes 16 bits into Display P3; only naming the profile of the output brings them from there to sRGB.
  const decoder = (isDeep && hasProfile ? turned.withIccProfile('srgb') : turned)
    .toColourspace(deep ? 'rgb16' : 'srgb')
    .ensureAlpha()
    .raw({ depth: deep ? 'ushort' : 'uchar' });
  const size = turns(type) ? { width: autoOrient.width, height: autoOrient.height } : { width, height };
  return { ...size, deep, decoder };
}

/** Decodes a picture to RGBA8, or RGBA16 where that is asked for and the file has it, oriented by its Exif data and in sRGB. @throws Refused for a file that is no such picture. */
export async function readPicture(file: string, wantsDeep = false): Promise<{ data: Buffer; width: number; height: number; deep: boolean }> {
  const bytes = await readBytes(file);
  try {
    const { decoder, deep } = await open(file, bytes, wantsDeep);
    const { data, info } = await decoder.toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height, deep };
  } catch (error) {
    throw refusal(file, error);
  }
}

/** Size of a picture by its header, after orientation, and whether `readPicture` makes RGBA16 of it. @throws Refused for a file that is no picture. */
export async function sizeOf(file: string, wantsDeep = false): Promise<{ width: number; height: number; deep: boolean }> {
  const bytes = await readBytes(file);
  try {
    const { width, height, deep } = await open(file, bytes, wantsDeep);
    return { width, height, deep };
  } catch (error) {
    throw refusal(file, error);
  }
}
