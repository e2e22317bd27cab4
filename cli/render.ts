import path from 'node:path';
import type { Finding } from '../src/core/guards/finding';
import { coatsOf, goesAround, layRecipe } from '../src/core/piece/recipe';
import { pieceSchema } from '../src/core/piece/schema';
import { pieceSize } from '../src/core/ready/geometry';
import { compile } from '../src/core/render/compile';
import { drawsSmaller } from '../src/core/render/reach';
import { nodeFind } from '../src/engine/finder/node';
import { withEngine } from './engine';
import { readRecipe } from './recipe';
import { checkOutputName, decodeFile, Refused, sizeOf, writePicture } from './files';
import { unitOf } from '../src/core/image/unit';

interface RenderArguments {
  photo?: string;
  recipe?: string;
  out?: string;
  scale?: string;
}

/** Lays a recipe on a photo with the engine that the page uses. Files named in the recipe are relative to it. */
export async function render({ photo, recipe, out, scale: scaleText = '1' }: RenderArguments): Promise<void> {
  if (!photo || !recipe || !out) throw new Refused('render needs --photo, --recipe and --out.');
  const scale = Number(scaleText);
  if (!(scale > 0 && scale <= 1)) throw new Refused(`--scale is over 0 and up to 1, not ${scaleText}.`);
  checkOutputName(out);
  const { recipe: look, pictures } = await readRecipe(recipe);
  let next = 0;
  // A key that no file beside the recipe can have.
  const ref = { key: 'photo\0', name: path.basename(photo), ...(await sizeOf(photo)) };
  const blank = pieceSchema.parse({ dermatex: 1, id: 'render', name: ref.name, created: 0, changed: 0, photo: ref });
  const coats = coatsOf(look, () => `c${++next}`);
  // The same that the page does with a recipe.
  const laid = (finding: Finding | null) => layRecipe(look, coats, finding)(blank);
  const piece = laid(null);
  const framed = pieceSize(piece);
  // Without its smaller levels the photo takes a quarter less memory. Looking for a spot's source wants them too.
  const needsLevels = scale < 1 || piece.ready?.spots.some((spot) => !spot.from) || drawsSmaller(compile(piece), unitOf(framed));
  const width = Math.max(1, Math.round(framed.width * scale));
  const height = Math.max(1, Math.round(framed.height * scale));
  await withEngine(
    (engine) => ({
      decode: (key, deep) => decodeFile(key === ref.key ? photo : (pictures.get(key) as string), (at, bytes) => engine().pool.write(at, bytes), deep),
      levels: needsLevels ? undefined : 1,
      inPlace: true,
      find: nodeFind(),
    }),
    async (engine) => {
      // A look with guards is drawn without them when the models cannot be used; that is said.
      const find = () => engine.guards.find(ref).catch((error: Error) => (console.error(error.message), null));
      const finding = piece.guards || goesAround(look) ? await find() : null;
      await engine.draw({ piece: laid(finding), region: { x: 0, y: 0, width, height }, scale, tile: engine.largeTile }, (pixels) =>
        writePicture(out, pixels, width, height),
      );
    },
  );
}
