import CRC32 from 'crc-32';
import { unzipSync } from 'fflate';
import { cut } from '../cut';
import { BadFile } from './inspect';
import { directoryAt, entriesIn } from './zipDirectory';

const MOST_FILES = 600;
const LARGEST = 200 * 2 ** 20;
const LARGEST_ALL = 1024 * 2 ** 20;
/** Pictures hardly shrink in a zip; what shrinks more than this is made to fill the memory. */
const MOST_RATIO = 200;

const endsOutside = (name: string) => /^([/\\]|[a-z]:)/i.test(name) || name.split(/[/\\]/).includes('..') || name.includes('\0');

/**
 * Unpacks those files of a zip that are wanted. Sizes, counts and places are looked at before anything is unpacked, and check sums afterwards.
 *
 * @param called What the file is called in a sentence.
 * @throws BadFile with one sentence.
 */
export function unpack(bytes: Uint8Array, called: string, isWanted: (name: string) => boolean): Record<string, Uint8Array> {
  let count = 0;
  let total = 0;
  let wrong: string | null = null;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter({ name, originalSize, size }) {
        count++;
        total += originalSize;
        if (endsOutside(name)) wrong ??= `names a file outside itself (${cut(name)})`;
        else if (originalSize > LARGEST || total > LARGEST_ALL) wrong ??= 'is larger than a pack may be, unpacked (1 GB, 200 MB a picture)';
        else if (originalSize > 65536 && originalSize > size * MOST_RATIO) wrong ??= 'unpacks to many times its size, as no picture does';
        else if (count > MOST_FILES) wrong ??= `holds more than ${MOST_FILES} files`;
        return wrong === null && isWanted(name) && !name.startsWith('__MACOSX/');
      },
    });
  } catch {
    throw new BadFile(`${called} is not a zip file, or is damaged; fetch it again from where it came.`);
  }
  if (wrong) throw new BadFile(`${called} is not used: it ${wrong}.`);
  const changed = changedFile(bytes, files);
  if (changed) throw new BadFile(`${called} is damaged: ${cut(changed)} is not what was packed; fetch it again from where it came.`);
  return files;
}

/** The first file whose check sum is not the one in the zip's directory (APPNOTE 6.3.10, §4.4.7), which unzipping does not look at. */
function changedFile(zip: Uint8Array, files: Record<string, Uint8Array>): string | null {
  const found = directoryAt(zip);
  const entries = found ? entriesIn(zip.subarray(found.start, found.start + found.bytes)) : [];
  const sums = new Map(entries.map(({ name, crc }) => [name, crc]));
  // One that the directory does not name is not what was packed either.
  return Object.keys(files).find((name) => CRC32.buf(files[name]) !== sums.get(name)) ?? null;
}
