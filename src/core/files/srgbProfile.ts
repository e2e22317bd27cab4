import { D50, fixed, localised, tagBody, writeProfile, xyzBody } from './iccWriter';

/** sRGB's primaries and white as an ICC profile gives them, adapted to D50 (ICC.1:2022, annex E; the values of the ICC's own sRGB profiles). */
const PRIMARIES = { rXYZ: [0.43607, 0.22249, 0.01392], gXYZ: [0.38515, 0.71687, 0.09708], bXYZ: [0.14307, 0.06061, 0.7141] } as const;
/** Bradford's matrix from D65 to D50. */
const ADAPTATION = [1.04788, 0.02292, -0.0502, 0.02959, 0.99048, -0.01707, -0.00925, 0.01508, 0.75168] as const;
/** IEC 61966-2-1: gamma, then a, b, c and d of the curve's two parts (ICC.1:2022, 10.18, function 3). */
const CURVE = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045] as const;

function make(): Uint8Array<ArrayBuffer> {
  const curve = tagBody('para', Uint8Array.of(0, 3, 0, 0), fixed(CURVE));
  return writeProfile({
    version: 0x04400000,
    connection: 'XYZ ',
    tags: [
      ['desc', localised('sRGB')],
      ['cprt', localised('No copyright')],
      ['wtpt', xyzBody(D50)],
      ...Object.entries(PRIMARIES).map(([name, values]) => [name, xyzBody(values)] as const),
      ['rTRC', curve],
      ['gTRC', curve],
      ['bTRC', curve],
      ['chad', tagBody('sf32', fixed(ADAPTATION))],
    ],
  });
}

let made: Uint8Array<ArrayBuffer> | null = null;

/** An ICC profile (version 4.4) that says sRGB, for files that name their colours so. */
export const srgbProfile = (): Uint8Array<ArrayBuffer> => (made ??= make());
