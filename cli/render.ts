import { nodeFind } from '../src/engine/finder/node';
import { decodeFile } from './decode';
import { withEngine } from './engine';
import { checkOutputName, isDeep, Refused } from './files';
import { drawLaid, layOn, needsLevels, type Order } from './laying';
import { readRecipe } from './recipe';

export interface RenderArguments {
  photo?: string;
  recipe?: string;
  out?: string;
  scale?: string;
  bits?: string;
  /** Leaves out the photo's capture data. */
  'no-capture'?: boolean;
  /** Leaves materials at 2048 pixels on large photos. */
  'no-detail'?: boolean;
}

/** Reads what `render` and `batch` have in common. @throws Refused, RangeError with one sentence */
export async function readOrder({ recipe = '', scale: text = '1', bits = '8', ...given }: RenderArguments): Promise<Order> {
  const scale = Number(text);
  if (!(scale > 0 && scale <= 1)) throw new Refused(`--scale is over 0 and up to 1, not ${text}.`);
  const deep = isDeep(bits);
  const { recipe: look, pictures } = await readRecipe(recipe);
  return { look, pictures, scale, deep, keepsCapture: given['no-capture'] !== true, full: given['no-detail'] !== true };
}

/** Lays a recipe on a photo with the engine that the page uses. Files named in the recipe are relative to it. */
export async function render(given: RenderArguments): Promise<void> {
  const { photo, recipe, out, bits = '8' } = given;
  if (!photo || !recipe || !out) throw new Refused('render needs --photo, --recipe and --out.');
  checkOutputName(out, isDeep(bits));
  const order = await readOrder(given);
  const laid = await layOn(order, photo);
  await withEngine(
    (engine) => ({
      decode: (key, deep) => decodeFile(key === laid.key ? photo : (order.pictures.get(key) as string), engine().pool, deep),
      levels: needsLevels(order, laid) ? undefined : 1,
      inPlace: true,
      find: nodeFind(),
    }),
    (engine) => drawLaid(engine, order, laid, out),
  );
}
