import { fileOfSource } from '../sources';
import type { Stroke } from '../strokes/schema';
import { everyCoat, mapCoats } from './groups';
import type { Coat } from './schema';

/** A picture file under another name, with its size where that is known. */
export interface FoundFile {
  file: string;
  width?: number;
  height?: number;
}
type Part = Coat['mask']['parts'][number];

/** Strokes of a part of a mask, or of a source. */
const strokesOf = (holder: Record<string, unknown>): Stroke[] => (Array.isArray(holder.strokes) ? (holder.strokes as Stroke[]) : []);
const tipsOf = (holder: Record<string, unknown>) => strokesOf(holder).map((stroke) => stroke.material?.file);

type Holder = Pick<Coat, 'source' | 'mask'> & Partial<Pick<Coat, 'treatments'>>;

/** The picture files that a coat reads: what it starts from, maps of its steps, masks made of pictures, tips cut from them, and all coats of a group. */
export const filesOf = (coat: Holder): string[] => everyCoat([coat]).flatMap(ownFiles);

function ownFiles({ source, treatments = [], mask }: Holder): string[] {
  const files = [
    fileOfSource(source),
    ...tipsOf(source),
    ...treatments.map((step) => (step as { file?: string }).file),
    ...mask.parts.flatMap((part) => [part.file, ...tipsOf(part)]),
  ];
  return files.filter((file): file is string => typeof file === 'string' && file !== '');
}

/** A coat that reads other files: `find` is asked for each file that it reads, and told which coat reads it; those of a group are done too. */
export const withFiles = <C extends Holder>(coat: C, find: (file: string, reader: C) => FoundFile): C =>
  mapCoats([coat], (one) => withOwnFiles(one, (file) => find(file, one)))[0];

function withOwnFiles<C extends Holder>(coat: C, find: (file: string) => FoundFile): C {
  if (ownFiles(coat).length === 0) return coat;
  const own = fileOfSource(coat.source);
  const source = withTips(own ? { ...coat.source, ...find(own) } : coat.source, find);
  const treatments = coat.treatments?.map((step) => {
    const { file: named } = step as { file?: string };
    return named ? { ...step, file: find(named).file } : step;
  });
  return {
    ...coat,
    source,
    ...(treatments ? { treatments } : {}),
    mask: { ...coat.mask, parts: coat.mask.parts.map((part) => partWithFiles(part, find)) },
  };
}

const partWithFiles = (part: Part, find: (file: string) => FoundFile): Part =>
  withTips(typeof part.file === 'string' ? { ...part, file: find(part.file).file } : part, find);

/** A part of a mask, or a source, whose strokes' tips are cut from other files. */
function withTips<H extends Record<string, unknown>>(holder: H, find: (file: string) => FoundFile): H {
  const strokes = strokesOf(holder);
  if (!strokes.some((stroke) => stroke.material?.file)) return holder;
  const named = (stroke: Stroke): Stroke =>
    stroke.material?.file ? { ...stroke, material: { ...stroke.material, file: find(stroke.material.file).file } } : stroke;
  return { ...holder, strokes: strokes.map(named) };
}
