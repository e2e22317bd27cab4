import sharp from 'sharp';

/** Values of 16 bits of a picture's file, red, green and blue, as they stand in it. */
export async function deepValues(file: string): Promise<Uint16Array> {
  const { data } = await sharp(file)
    .keepIccProfile()
    .toColourspace('rgb16')
    .removeAlpha()
    .raw({ depth: 'ushort' })
    .toBuffer({ resolveWithObject: true });
  return new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
}
