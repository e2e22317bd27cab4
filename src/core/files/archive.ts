import CRC32 from 'crc-32';
import { strFromU8, unzipSync } from 'fflate';
import { cut } from '../cut';
import { BadFile } from './inspect';

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
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  const end = endOfDirectory(view);
  if (end === null) return null;
  let at = view.getUint32(end + 16, true);
  for (let i = 0; i < view.getUint16(end + 10, true) && at + 46 <= view.byteLength; i++) {
    const [nameLength, extra, comment] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true));
    const name = strFromU8(zip.subarray(at + 46, at + 46 + nameLength), !(view.getUint16(at + 8, true) & 0x800));
    if (files[name] && CRC32.buf(files[name]) !== view.getInt32(at + 16, true)) return name;
    at += 46 + nameLength + extra + comment;
  }
  return null;
}

/** Where the record at the end of a zip's directory begins. */
function endOfDirectory(view: DataView): number | null {
  for (let at = view.byteLength - 22; at >= Math.max(0, view.byteLength - 22 - 65535); at--) if (view.getUint32(at, true) === 0x06054b50) return at;
  return null;
}
