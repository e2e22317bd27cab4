import sharp from 'sharp';
import { materialById, materials } from '../src/core/materials';
import { withEngine } from './engine';
import { checkOutputName, Refused, writePicture } from './files';

export function listMaterials(): void {
  for (const m of materials)
    console.log([m.id.padEnd(22), m.family.padEnd(9), m.suggest.blend.padEnd(11), m.suggest.strength.toFixed(2), ` ${m.label}`].join(' '));
}

/** Makes one material. Square ones are made as large as the longer side asks and cut to the middle; those with edges fit the shape. */
export async function makeMaterial(
  id: string | undefined,
  { seed = '1', size = '1024x1024', out }: { seed?: string; size?: string; out?: string },
): Promise<void> {
  if (!id || !out) throw new Refused('material needs an id and --out.');
  const material = materialById(id);
  const match = /^(\d+)x(\d+)$/i.exec(size);
  const [width, height] = match ? [Number(match[1]), Number(match[2])] : [0, 0];
  if (!match || Math.min(width, height) < 16 || Math.max(width, height) > 4096)
    throw new Refused(`--size is WxH with sides of 16 to 4096, not ${size}.`);
  const number = Number(seed);
  if (!Number.isInteger(number) || number < 0 || number > 1e9) throw new Refused(`--seed is a whole number from 0 to 1000000000, not ${seed}.`);
  checkOutputName(out);
  const up = (n: number) => Math.ceil(n / 16) * 16;
  const side = up(Math.max(width, height));
  const order = {
    id,
    seed: number,
    params: {},
    ...(material.shape === 'square' ? { width: side, height: side } : { width: up(width), height: up(height) }),
  };
  const made = await withEngine(
    () => ({ decode: () => Promise.reject(new Error('no pictures here')), size: 1 }),
    (engine) => engine.materialPixels(order),
  );
  const left = Math.floor((made.width - width) / 2);
  const top = Math.floor((made.height - height) / 2);
  const cut = await sharp(made.pixels, { raw: { width: made.width, height: made.height, channels: 4 } })
    .extract({ left, top, width, height })
    .raw()
    .toBuffer();
  await writePicture(out, { pixels: cut, width, height });
}
