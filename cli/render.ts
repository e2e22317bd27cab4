import path from 'node:path';
import { coatsOf, parseRecipe } from '../src/core/piece/recipe';
import type { Recipe } from '../src/core/piece/schema';
import { readiedSize } from '../src/core/ready/geometry';
import { drawsSmaller } from '../src/core/render/source';
import { treatmentByKind } from '../src/core/treatments';
import { nodeFind } from '../src/engine/finder/node';
import { nodeEngine } from '../src/engine/node';
import { checkOutputName, decodeFile, readBytes, Refused, sizeOf, writePicture } from './files';

interface RenderArguments {
  photo?: string;
  recipe?: string;
  out?: string;
  scale?: string;
}

/** At full size nothing but materials is drawn smaller, unless a spot's source is looked for, the whole picture is surveyed, or a blur is wide. */
function readsSmall({ ready, guards, coats }: Recipe, long: number): boolean {
  const surveyed = (t: Record<string, unknown>) => treatmentByKind(t.kind as string).survey !== undefined;
  if (guards || coats.some((c) => c.source.kind === 'cutout' || c.mask.parts.some((p) => p.kind === 'guard'))) return true;
  if (ready?.spots.some((spot) => !spot.from) || ready?.even || ready?.localTone || ready?.localContrast) return true;
  return coats.some((c) => c.treatments.some(surveyed) || drawsSmaller(c, long / 2000));
}

/** Lays a recipe on a photo with the engine that the page uses. Files named in the recipe are relative to it. */
export async function render({ photo, recipe, out, scale: scaleText = '1' }: RenderArguments): Promise<void> {
  if (!photo || !recipe || !out) throw new Refused('render needs --photo, --recipe and --out.');
  const scale = Number(scaleText);
  if (!(scale > 0 && scale <= 1)) throw new Refused(`--scale is over 0 and up to 1, not ${scaleText}.`);
  checkOutputName(out);
  const look = parseRecipe((await readBytes(recipe)).toString('utf8'));
  let next = 0;
  const coats = coatsOf(look, () => `c${++next}`);
  const { width: pw, height: ph } = await sizeOf(photo);
  const framed = readiedSize({ width: pw, height: ph }, look.ready);
  const engine = await nodeEngine({
    decode: (key, deep) =>
      decodeFile(key === 'photo' ? photo : path.resolve(path.dirname(recipe), key), (at, bytes) => engine.pool.write(at, bytes), deep),
    levels: scale === 1 && !readsSmall(look, Math.max(framed.width, framed.height)) ? 1 : undefined,
    inPlace: true,
    find: nodeFind(),
  });
  const width = Math.max(1, Math.round(framed.width * scale));
  const height = Math.max(1, Math.round(framed.height * scale));
  const ref = { key: 'photo', name: path.basename(photo), width: pw, height: ph };
  // A look with guards is drawn without them when the models cannot be used; that is said.
  if (look.guards) await engine.guards.find(ref).catch((error: Error) => console.error(error.message));
  await engine.draw(
    {
      piece: { coats, strength: look.strength, photo: ref, ready: look.ready, guards: look.guards },
      region: { x: 0, y: 0, width, height },
      scale,
      tile: engine.largeTile,
    },
    (pixels) => writePicture(out, pixels, width, height),
  );
  engine.pool.close();
}
