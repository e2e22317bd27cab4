import CRC32 from 'crc-32';
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import * as z from 'zod';
import { fittingSchema } from '../materials/fitting/schema';
import { families } from '../materials/material';
import { cut } from '../cut';
import { explain } from '../piece/explain';
import { BadFile } from './inspect';

const MOST_PICTURES = 300;
const familyIds = families.map((f) => f.id) as [string, ...string[]];

/** A material pack is a zip of pictures and this, as `pack.json`. */
export const packSchema = z
  .object({
    dermatex: z.literal(1),
    name: z.string().min(1).max(200),
    maker: z.string().max(200).default(''),
    licence: z.string().max(500).default(''),
    materials: z
      .array(
        z
          .object({
            /** The picture's place in the zip. */
            file: z.string().min(1).max(300),
            name: z.string().min(1).max(200),
            family: z.enum(familyIds).optional(),
            fitting: fittingSchema.optional(),
          })
          .strict(),
      )
      .min(1)
      .max(MOST_PICTURES),
  })
  .strict();
export type Pack = z.output<typeof packSchema>;

const MOST_FILES = 600;
const LARGEST = 200 * 2 ** 20;
const LARGEST_ALL = 1024 * 2 ** 20;
/** Pictures hardly shrink in a zip; what shrinks more than this is made to fill the memory. */
const MOST_RATIO = 200;
const PICTURE = /\.(png|jpe?g|webp|avif|tiff?)$/i;

const endsOutside = (name: string) => /^([/\\]|[a-z]:)/i.test(name) || name.split(/[/\\]/).includes('..') || name.includes('\0');

/**
 * Reads a material pack: its list and its pictures by their place. A zip of pictures without a list is taken too, each named by its file.
 * Sizes, counts and places are looked at before anything is unpacked. @throws BadFile with one sentence.
 */
export function readPack(bytes: Uint8Array, fileName: string): { pack: Pack; pictures: Map<string, Uint8Array> } {
  const called = `“${fileName}”`;
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
        return wrong === null && (name === 'pack.json' || PICTURE.test(name)) && !name.startsWith('__MACOSX/');
      },
    });
  } catch {
    throw new BadFile(`${called} is not a zip file, or is damaged; fetch it again from where it came.`);
  }
  if (wrong) throw new BadFile(`${called} is not used: it ${wrong}.`);
  const changed = changedFile(bytes, files);
  if (changed) throw new BadFile(`${called} is damaged: ${cut(changed)} is not what was packed; fetch it again from where it came.`);
  const { 'pack.json': list, ...pictures } = files;
  const pack = list ? parseList(list, called) : packOf(Object.keys(pictures), fileName);
  const missing = pack.materials.find((m) => !pictures[m.file]);
  if (missing) throw new BadFile(`${called} lists a picture that is not in it (${cut(missing.file)}); ask its maker for a whole one.`);
  return { pack, pictures: new Map(pack.materials.map((m) => [m.file, pictures[m.file]])) };
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

function parseList(list: Uint8Array, called: string): Pack {
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(list));
  } catch {
    throw new BadFile(`The list in ${called} is not JSON; ask its maker for a whole one.`);
  }
  const parsed = packSchema.safeParse(json);
  if (!parsed.success) throw new BadFile(explain(parsed.error, 'pack', json));
  return parsed.data;
}

/** A list for a zip that has none. */
function packOf(names: string[], fileName: string): Pack {
  if (names.length === 0) throw new BadFile(`“${fileName}” holds no PNG, JPEG, WebP, AVIF or TIFF pictures; choose another.`);
  if (names.length > MOST_PICTURES)
    throw new BadFile(`“${fileName}” holds ${names.length} pictures; a pack may have ${MOST_PICTURES}. Split it into several.`);
  const bare = (name: string) => name.replace(/^.*[/\\]/, '').replace(/\.[a-z0-9]+$/i, '') || name;
  const materials = names.sort().map((file) => ({ file, name: bare(file) }));
  return packSchema.parse({ dermatex: 1, name: bare(fileName), materials });
}

/** A pack as the bytes of a zip. Pictures are stored as they are: they would not shrink. @throws RangeError when it is no valid pack. */
export function writePack(pack: Pack, pictures: Map<string, Uint8Array>): Uint8Array<ArrayBuffer> {
  const checked = packSchema.safeParse(pack);
  if (!checked.success) throw new RangeError(explain(checked.error, 'pack', pack));
  const entries: Zippable = { 'pack.json': [strToU8(JSON.stringify(checked.data, null, 2)), { level: 6 }] };
  for (const { file } of checked.data.materials) {
    const bytes = pictures.get(file);
    if (!bytes) throw new RangeError(`The picture ${file} of the pack is missing.`);
    entries[file] = [bytes, { level: 0 }];
  }
  return zipSync(entries) as Uint8Array<ArrayBuffer>;
}
