import sharp from 'sharp';
import { captureData } from '../src/core/files/capture';
import { tiffWithCapture } from '../src/core/files/captureTiff';
import { writeTiff } from '../src/core/files/tiffWriter';
import { embeddedProfile, isTable } from '../src/core/files/embeddedProfile';
import { openConversion } from '../src/engine/profiles';
import { testProfiles } from '../src/testing/profiles';
import { campaign } from './campaign';
import type { Tally } from './tally';

const formats = ['jpeg', 'png', 'webp'] as const;

/** What photos say of themselves besides their pixels: capture data is passed on or left out, profiles convert or are left out of account. */
export async function damagedMetadata(count: number, random: () => number): Promise<Tally[]> {
  const photo = sharp({ create: { width: 24, height: 16, channels: 3, background: '#369' } });
  const exif = { IFD0: { Make: 'Skerry', Orientation: '6' }, IFD3: { GPSLatitudeRef: 'N' } };
  const photos = await Promise.all(formats.map((format) => photo.clone().withExif(exif).withIccProfile('p3').toFormat(format).toBuffer()));
  const capture = captureData(photos[0]);
  const tiff = writeTiff({ pixels: new Uint8Array(24 * 16 * 4).fill(200), width: 24, height: 16 });
  if (capture) photos.push(Buffer.from(tiffWithCapture(tiff, capture)));
  const profiles = Object.values(testProfiles).map((make) => Buffer.from(make()));
  const square = Uint8Array.from({ length: 64 * 3 }, (_, i) => i);
  return [
    await campaign('damaged capture data', photos, count, random, (bytes) => {
      const data = captureData(bytes);
      if (data && data.length > 4 * bytes.length) throw new Error(`${data.length} bytes of capture data out of a file of ${bytes.length}`);
      const profile = embeddedProfile(bytes);
      if (profile) isTable(profile);
    }),
    await campaign('damaged profiles', profiles, count, random, async (bytes) => {
      const conversion = await openConversion(bytes, 3, false);
      if (!conversion) return;
      const out = conversion.convert(square);
      conversion.close();
      if (out.length !== square.length) throw new Error(`${out.length} values out of ${square.length}`);
    }),
  ];
}
