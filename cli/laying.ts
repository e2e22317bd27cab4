import path from 'node:path';
import type { Finding } from '../src/core/guards/finding';
import { unitOf } from '../src/core/image/unit';
import { coatsOf, goesAround, layRecipe } from '../src/core/piece/recipe';
import { pieceSchema, type Piece, type Recipe } from '../src/core/piece/schema';
import { pieceSize } from '../src/core/ready/geometry';
import { compile } from '../src/core/render/compile';
import { drawsSmaller } from '../src/core/render/reach';
import type { Engine } from '../src/engine/engine';
import { captureOf, writePicture } from './files';
import { sizeOf } from './pictures';

/** A look to be laid on photos, and how their pictures are made. */
export interface Order {
  look: Recipe;
  /** Where each picture lies that the look names. */
  pictures: ReadonlyMap<string, string>;
  /** Of the photo's size, over 0 and up to 1. */
  scale: number;
  /** 16 bits a channel. */
  deep: boolean;
  /** Capture data of the photo is passed on. */
  keepsCapture: boolean;
  /** Materials as fine as the picture, however large that is. */
  full: boolean;
}

/** A photo with the look on it, ready to be drawn. */
export interface Laid {
  /** The photo's key for the engine: no file beside a recipe can have it. */
  key: string;
  file: string;
  piece(finding: Finding | null): Piece;
}

/** Lays the look on a photo as the page does. @throws Refused when the file is no picture that can be opened. */
export async function layOn({ look }: Order, file: string, number = 0): Promise<Laid> {
  const { width, height } = await sizeOf(file);
  const ref = { key: `photo\0${number}`, name: path.basename(file), width, height };
  const blank = pieceSchema.parse({ dermatex: 1, id: 'render', name: ref.name, created: 0, changed: 0, photo: ref });
  let next = 0;
  const coats = coatsOf(look, () => `c${++next}`);
  return { key: ref.key, file, piece: (finding) => layRecipe(look, coats, finding)(blank) };
}

/** Whether smaller levels of the photo are wanted; without them it takes a quarter less memory. Looking for a spot's source wants them too. */
export function needsLevels({ scale }: Order, { piece }: Laid): boolean {
  const laid = piece(null);
  return scale < 1 || !!laid.ready?.spots.some((spot) => !spot.from) || drawsSmaller(compile(laid), unitOf(pieceSize(laid)));
}

/**
 * Draws a laid photo and writes it. A look with guards is drawn without them when the models cannot be used; that is said.
 *
 * @param besides The pixels are copied, so that another photo is drawn while this one is encoded.
 */
export async function drawLaid(
  engine: Engine,
  { look, scale, deep, keepsCapture, full }: Order,
  laid: Laid,
  out: string,
  besides = false,
): Promise<void> {
  const plain = laid.piece(null);
  const find = () => engine.guards.find(plain.photo).catch((error: Error) => (console.error(error.message), null));
  const piece = laid.piece(plain.guards || goesAround(look) ? await find() : null);
  const framed = pieceSize(piece);
  const [width, height] = [framed.width, framed.height].map((side) => Math.max(1, Math.round(side * scale)));
  const exif = keepsCapture ? await captureOf(laid.file) : null;
  const write = (pixels: Uint8Array) => writePicture(out, { pixels, width, height, deep, exif });
  const drawing = { piece, region: { x: 0, y: 0, width, height }, scale, deep, full, tile: engine.largeTile };
  if (besides) await write(await engine.draw(drawing, (pixels) => pixels.slice()));
  else await engine.draw(drawing, write);
}
