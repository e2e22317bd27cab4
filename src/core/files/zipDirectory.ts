import CRC32 from 'crc-32';
import { inflateSync, strFromU8 } from 'fflate';
import { cut } from '../cut';
import { viewOf } from './blocks';
import { BadFile } from './inspect';

/** A file that is read in parts. */
export interface ZipSource {
  size: number;
  read(at: number, bytes: number): Promise<Uint8Array>;
}

/** A file in a zip (APPNOTE 6.3.10, §4.3.12). */
export interface ZipEntry {
  name: string;
  /** Where its own header begins. */
  at: number;
  packed: number;
  size: number;
  crc: number;
  /** 0 stored, 8 deflated. */
  method: number;
}

const END = 22;
const LONGEST_COMMENT = 65_535;
const DIRECTORY_MARK = 0x02014b50;
const LOCAL_MARK = 0x04034b50;
/** Most bytes of a directory, and of one file unpacked. */
const LARGEST_DIRECTORY = 64 * 2 ** 20;
const LARGEST = 512 * 2 ** 20;

/** Where the directory of a zip lies, by the last bytes of the file; null where they do not say. */
export function directoryAt(last: Uint8Array): { count: number; bytes: number; start: number } | null {
  const view = viewOf(last);
  for (let end = view.byteLength - END; end >= Math.max(0, view.byteLength - END - LONGEST_COMMENT); end--) {
    if (view.getUint32(end, true) !== 0x06054b50) continue;
    return { count: view.getUint16(end + 10, true), bytes: view.getUint32(end + 12, true), start: view.getUint32(end + 16, true) };
  }
  return null;
}

/** The files that a directory names, as far as it can be read (APPNOTE 6.3.10, §4.3.12). Names are UTF-8 where a flag says so. */
export function entriesIn(directory: Uint8Array): ZipEntry[] {
  const view = viewOf(directory);
  const entries: ZipEntry[] = [];
  for (let at = 0; at + 46 <= view.byteLength && view.getUint32(at, true) === DIRECTORY_MARK;) {
    const [nameLength, extra, comment] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true));
    if (at + 46 + nameLength > view.byteLength) break;
    entries.push({
      name: strFromU8(directory.subarray(at + 46, at + 46 + nameLength), !(view.getUint16(at + 8, true) & 0x800)),
      at: view.getUint32(at + 42, true),
      packed: view.getUint32(at + 20, true),
      size: view.getUint32(at + 24, true),
      crc: view.getInt32(at + 16, true),
      method: view.getUint16(at + 10, true),
    });
    at += 46 + nameLength + extra + comment;
  }
  return entries;
}

/** The files of a zip, read from its directory alone, so that one of many gigabytes need not be in memory. @throws BadFile with one sentence */
export async function listZip(source: ZipSource, called: string): Promise<ZipEntry[]> {
  const damaged = new BadFile(`${called} is not a zip file, or is damaged; fetch it again from where it came.`);
  const tail = Math.min(source.size, END + LONGEST_COMMENT);
  const found = directoryAt(await source.read(source.size - tail, tail));
  if (!found || found.start + found.bytes > source.size || found.bytes > LARGEST_DIRECTORY) throw damaged;
  const entries = entriesIn(await source.read(found.start, found.bytes));
  // The number of files is kept in 16 bits.
  if (entries.length % 65_536 !== found.count) throw damaged;
  return entries;
}

/** The bytes of one file of a zip, whose check sum is looked at. @throws BadFile with one sentence */
export async function readEntry(source: ZipSource, { name, at, packed, size, crc, method }: ZipEntry, called: string): Promise<Uint8Array> {
  const damaged = new BadFile(`${called} is damaged: ${cut(name)} is not what was packed; fetch it again from where it came.`);
  if (size > LARGEST || (method !== 0 && method !== 8) || (method === 0 && packed !== size) || at + 30 > source.size) throw damaged;
  const head = viewOf(await source.read(at, 30));
  if (head.getUint32(0, true) !== LOCAL_MARK) throw damaged;
  const start = at + 30 + head.getUint16(26, true) + head.getUint16(28, true);
  if (start + packed > source.size) throw damaged;
  const bytes = await source.read(start, packed);
  let unpacked: Uint8Array;
  try {
    // Into a buffer of the size that is said: what swells further is not unpacked.
    unpacked = method === 0 ? bytes : inflateSync(bytes, { out: new Uint8Array(size) });
  } catch {
    throw damaged;
  }
  if (unpacked.length !== size || CRC32.buf(unpacked) !== crc) throw damaged;
  return unpacked;
}

/** A file of a browser as a source. */
export const zipSourceOf = (file: Blob): ZipSource => ({
  size: file.size,
  read: async (at, bytes) => new Uint8Array(await file.slice(at, at + bytes).arrayBuffer()),
});
