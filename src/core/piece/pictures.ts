import { fileOfSource } from '../sources';
import type { Stroke } from '../strokes/schema';
import type { Coat } from './schema';

/** A picture file under another name, with its size where that is known. */
export interface FoundFile {
  file: string;
  width?: number;
  height?: number;
}
type Part = Coat['mask']['parts'][number];

const strokesOf = (part: Part): Stroke[] => (Array.isArray(part.strokes) ? (part.strokes as Stroke[]) : []);

/** The picture files that a coat reads: what it starts from, masks made of pictures, and tips cut from them. */
export function filesOf({ source, mask }: Pick<Coat, 'source' | 'mask'>): string[] {
  const files = [fileOfSource(source), ...mask.parts.flatMap((part) => [part.file, ...strokesOf(part).map((stroke) => stroke.material?.file)])];
  return files.filter((file): file is string => typeof file === 'string' && file !== '');
}

/** A coat that reads other files: `find` is asked for each file that it reads. */
export function withFiles<C extends Pick<Coat, 'source' | 'mask'>>(coat: C, find: (file: string) => FoundFile): C {
  if (filesOf(coat).length === 0) return coat;
  const own = fileOfSource(coat.source);
  const source = own ? { ...coat.source, ...find(own) } : coat.source;
  return { ...coat, source, mask: { ...coat.mask, parts: coat.mask.parts.map((part) => partWithFiles(part, find)) } };
}

function partWithFiles(part: Part, find: (file: string) => FoundFile): Part {
  const file = typeof part.file === 'string' ? { file: find(part.file).file } : {};
  const strokes = strokesOf(part);
  if (!strokes.some((stroke) => stroke.material?.file)) return { ...part, ...file };
  const named = (stroke: Stroke): Stroke =>
    stroke.material?.file ? { ...stroke, material: { ...stroke.material, file: find(stroke.material.file).file } } : stroke;
  return { ...part, ...file, strokes: strokes.map(named) };
}
