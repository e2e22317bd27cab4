import { strFromU8, strToU8, zipSync, type Zippable } from 'fflate';
import * as z from 'zod';
import { fittingSchema } from '../materials/fitting/schema';
import { families } from '../materials/material';
import { cut } from '../cut';
import { explain } from '../piece/explain';
import { unpack } from './archive';
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

/** Names of files that are taken for pictures. */
export const PICTURE = /\.(png|jpe?g|webp|avif|tiff?)$/i;

/**
 * Reads a material pack: its list and its pictures by their place. A zip of pictures without a list is taken too, each named by its file.
 * Sizes, counts and places are looked at before anything is unpacked. @throws BadFile with one sentence.
 */
export function readPack(bytes: Uint8Array, fileName: string): { pack: Pack; pictures: Map<string, Uint8Array> } {
  const called = `“${fileName}”`;
  const files = unpack(bytes, called, (name) => name === 'pack.json' || PICTURE.test(name));
  const { 'pack.json': list, ...pictures } = files;
  const pack = list ? parseList(list, called) : packOf(Object.keys(pictures), fileName);
  const missing = pack.materials.find((m) => !pictures[m.file]);
  if (missing) throw new BadFile(`${called} lists a picture that is not in it (${cut(missing.file)}); ask its maker for a whole one.`);
  return { pack, pictures: new Map(pack.materials.map((m) => [m.file, pictures[m.file]])) };
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
