import sharp from 'sharp';
import { compare } from '../src/core/measure/compare';
import { Refused } from './files';
import { readPicture } from './pictures';

export async function measure([a, b]: string[], maskFile?: string): Promise<void> {
  if (!a || !b) throw new Refused('measure needs two pictures.');
  const [one, two] = [await readPicture(a), await readPicture(b)];
  let mask: Uint8Array | undefined;
  if (maskFile) {
    const picture = await readPicture(maskFile);
    if (picture.width !== one.width || picture.height !== one.height) {
      throw new Refused(`The mask is ${picture.width} × ${picture.height} and the picture ${one.width} × ${one.height}; they must be one size.`);
    }
    mask = await sharp(picture.data, { raw: { width: picture.width, height: picture.height, channels: 4 } })
      .removeAlpha()
      .greyscale()
      .toColourspace('b-w')
      .raw()
      .toBuffer();
  }
  const r = compare(one, two, mask);
  console.log(
    `ciede2000 mean ${r.mean.toFixed(4)} p95 ${r.p95.toFixed(4)} max ${r.max.toFixed(4)} ssim ${r.ssim.toFixed(6)} pixels ${r.pixels} levels ${r.levels}`,
  );
}
