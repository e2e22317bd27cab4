import sharp from 'sharp';
import { BadFile, inspect } from '../src/core/files/inspect';
import { Refused } from '../cli/files';
import { readPicture } from '../cli/pictures';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { damaged } from './mutate';
import { expectSentence, tally, type Tally } from './tally';

export type Format = 'png' | 'jpeg' | 'webp' | 'tiff' | 'avif';
export const formats: readonly Format[] = ['png', 'jpeg', 'webp', 'tiff', 'avif'];

/** Good pictures of one format in many ways of writing it, after the ideas of PngSuite: depths, kinds, interlace, sizes of one pixel. */
export async function corpus(format: Format): Promise<Buffer[]> {
  const noise = (width: number, height: number, channels: 1 | 3 | 4) =>
    sharp(Buffer.from(Array.from({ length: width * height * channels }, (_, i) => (i * 73 + (i >> 3)) % 256)), { raw: { width, height, channels } });
  const sizes: [number, number][] = [
    [1, 1],
    [7, 5],
    [64, 48],
    [200, 3],
  ];
  const made: Promise<Buffer>[] = [];
  for (const [w, h] of sizes) {
    if (format === 'png')
      made.push(
        noise(w, h, 3).png().toBuffer(),
        noise(w, h, 4).png({ progressive: true }).toBuffer(),
        noise(w, h, 3).png({ palette: true }).toBuffer(),
        noise(w, h, 3).toColourspace('b-w').png().toBuffer(),
        noise(w, h, 3).toColourspace('rgb16').png().toBuffer(),
      );
    else if (format === 'jpeg')
      made.push(
        noise(w, h, 3).jpeg().toBuffer(),
        noise(w, h, 3).jpeg({ progressive: true }).toBuffer(),
        noise(w, h, 3).jpeg({ chromaSubsampling: '4:4:4' }).withMetadata({ orientation: 6 }).toBuffer(),
        noise(w, h, 3).toColourspace('b-w').jpeg().toBuffer(),
      );
    else if (format === 'tiff')
      made.push(
        noise(w, h, 3).tiff({ compression: 'none' }).toBuffer(),
        noise(w, h, 4).tiff({ compression: 'lzw', predictor: 'horizontal' }).toBuffer(),
        noise(w, h, 3).tiff({ compression: 'deflate' }).toBuffer(),
        noise(w, h, 3).toColourspace('rgb16').tiff({ compression: 'lzw' }).toBuffer(),
      );
    else if (format === 'avif') made.push(noise(w, h, 3).avif().toBuffer(), noise(w, h, 4).avif({ lossless: true }).toBuffer());
    else
      made.push(
        noise(w, h, 3).webp().toBuffer(),
        noise(w, h, 4).webp({ lossless: true }).toBuffer(),
        noise(w, h, 3).withMetadata({ orientation: 8 }).webp().toBuffer(),
      );
  }
  return Promise.all(made);
}

export interface Damaged {
  label: string;
  bytes: Buffer;
}

export async function damagedPictures(format: Format, count: number, random: () => number): Promise<Damaged[]> {
  const good = await corpus(format);
  return Array.from({ length: count }, (_, i) => ({ label: `${format} ${i}`, bytes: damaged(good[i % good.length], random) }));
}

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-faults-'));

/** Damaged pictures on the command line: each is opened, or refused in one sentence. */
export async function picturesOnCommandLine(count: number, random: () => number): Promise<Tally[]> {
  const tallies: Tally[] = [];
  for (const format of formats) {
    const list = await damagedPictures(format, count, random);
    tallies.push(
      await tally(
        `damaged ${format} pictures, command line`,
        list.map(({ label, bytes }) => [
          label,
          async () => {
            const file = path.join(folder, `picture.${format}`);
            writeFileSync(file, bytes);
            try {
              const { data, width, height } = await readPicture(file);
              if (data.length !== width * height * 4) throw new Error(`${width} × ${height} but ${data.length} bytes`);
            } catch (error) {
              if (!(error instanceof Refused) && !(error instanceof BadFile)) throw error;
              expectSentence(error);
            }
          },
        ]),
      ),
    );
    tallies.push(
      await tally(
        `whole ${format} pictures are not refused`,
        (await corpus(format)).map((bytes, i) => [`${format} ${i}`, () => void inspect(bytes, `whole.${format}`)]),
      ),
    );
  }
  return tallies;
}
