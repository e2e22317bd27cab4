import { readFile, realpath, rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { cut } from '../src/core/cut';
import { captureData, tagged } from '../src/core/files/capture';
import { writeTiff } from '../src/core/files/tiffWriter';

// One picture at a time: libvips' cache would only hold memory.
sharp.cache(false);

/** A mistake of the caller: one line on standard error, exit code 2. */
export class Refused extends Error {}

/** Bytes of the largest file that is read. */
const LARGEST = 512 * 2 ** 20;

/** @throws Refused for what is no regular file, is too large, or cannot be read. */
export async function readBytes(file: string): Promise<Buffer> {
  const about = await stat(file).catch(() => null);
  if (!about) throw new Refused(`There is no file ${cut(file)} that can be read.`);
  if (!about.isFile()) throw new Refused(`${cut(file)} is no file; name a picture or a recipe.`);
  if (about.size > LARGEST) throw new Refused(`${cut(file)} is larger than a file may be (${LARGEST / 2 ** 20} MB).`);
  return readFile(file).catch(() => {
    throw new Refused(`There is no file ${cut(file)} that can be read.`);
  });
}

/**
 * Where a file that a recipe names lies.
 * @throws Refused when it lies outside the recipe's folder: a recipe from elsewhere must not read what it likes
 */
export async function besideRecipe(recipe: string, named: string): Promise<string> {
  const folder = await realpath(path.dirname(recipe));
  const outside = () => new Refused(`The recipe names a picture "${cut(named)}" outside its own folder; put the picture beside the recipe.`);
  if (path.isAbsolute(named) || named.includes('\0')) throw outside();
  const file = path.resolve(folder, named);
  if (!file.startsWith(folder + path.sep)) throw outside();
  // A link may lead out as well.
  const real = await realpath(file).catch(() => null);
  if (!real) throw new Refused(`The recipe names a picture "${cut(named)}" that does not lie beside it: there is no file of that name.`);
  if (!real.startsWith(folder + path.sep)) throw outside();
  return real;
}

/** Pixels to be written: RGBA8, or RGBA16 in the machine's order of bytes when `deep`. */
export interface Drawn {
  pixels: Uint8Array;
  width: number;
  height: number;
  deep?: boolean;
  /** Capture data of the photo that they were made from. */
  exif?: Uint8Array | null;
}

/** The capture data of a photo's file; null when it has none. */
export async function captureOf(file: string): Promise<Uint8Array | null> {
  return captureData(await readBytes(file));
}

/** Writes pixels by the ending of the name: .png, .jpg, .webp or .tif. An opaque picture is written without alpha. */
export async function writePicture(file: string, { pixels, width, height, deep = false, exif = null }: Drawn): Promise<void> {
  const values = deep ? new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.length / 2) : pixels;
  const ending = path.extname(file).toLowerCase();
  const isTiff = /^\.tiff?$/.test(ending);
  const kind = isTiff ? 'image/tiff' : ending === '.webp' ? 'image/webp' : ending === '.png' ? 'image/png' : 'image/jpeg';
  const encoded = isTiff ? writeTiff({ pixels: values, width, height }) : await encode(values, { width, height, kind });
  // Written beside its place first, so that a failure leaves what was there.
  const part = `${file}.part`;
  try {
    await writeFile(part, tagged(encoded, kind, { width, height, exif }));
    await rename(part, file);
  } catch {
    await rm(part, { force: true });
    throw new Refused(`${file} cannot be written; does its folder exist?`);
  }
}

async function encode(values: Uint8Array | Uint16Array, { width, height, kind }: { width: number; height: number; kind: string }): Promise<Buffer> {
  const deep = values instanceof Uint16Array;
  const image = sharp(values, { raw: { width, height, channels: 4 } });
  const most = deep ? 65535 : 255;
  let clear = false;
  for (let i = 3; i < values.length && !clear; i += 4) clear = values[i] < most;
  if (!clear) image.removeAlpha();
  if (deep) image.toColourspace('rgb16');
  // Optimal Huffman tables would keep all coefficients of the picture in memory, 144 MB at 24 megapixels, to save a twentieth of the file.
  if (kind === 'image/jpeg') image.flatten({ background: '#fff' }).jpeg({ quality: 92, chromaSubsampling: '4:4:4', optimizeCoding: false });
  else if (kind === 'image/webp') image.webp({ quality: 92 });
  else image.png();
  return image.toBuffer();
}

/** @throws Refused for an ending that is not written, or that does not hold so many bits a channel. */
export function checkOutputName(file: string, deep = false): void {
  if (!/\.(png|jpe?g|webp|tiff?)$/i.test(file)) throw new Refused(`The result must be named .png, .jpg, .webp or .tif, not ${path.basename(file)}.`);
  if (deep && !/\.(png|tiff?)$/i.test(file)) throw new Refused(`Only .png and .tif hold 16 bits; name the result so, not ${path.basename(file)}.`);
}

/** Reads how many bits a channel are asked for. @throws Refused for any but 8 and 16. */
export function isDeep(bits: string): boolean {
  if (bits !== '8' && bits !== '16') throw new Refused(`--bits is 8 or 16, not ${bits}.`);
  return bits === '16';
}
