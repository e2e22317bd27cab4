import * as lcms from 'lcms-wasm';

/** A picture's values, as many channels a pixel: grey, grey and alpha, colour, colour and alpha. */
export interface Values {
  data: Uint8Array | Uint16Array;
  channels: number;
}

type Module = Awaited<ReturnType<typeof lcms.instantiate>>;
/** Where the library finds its wasm file; beside itself when this is not set. */
const place: { wasm?: string } = {};
let loading: Promise<Module> | null = null;
const load = (): Promise<Module> => (loading ??= lcms.instantiate(place.wasm ? { locateFile: () => place.wasm as string } : {}));
export const findProfilesAt = (wasm: string): void => void (place.wasm = wasm);

/** Pixels that are converted at a time. */
const STRIP = 1 << 16;
const INPUT: Record<string, Record<number, number>> = {
  'GRAY 8': { 1: lcms.TYPE_GRAY_8, 2: lcms.TYPE_GRAYA_8 },
  'GRAY 16': { 1: lcms.TYPE_GRAY_16, 2: lcms.TYPE_GRAYA_16 },
  'RGB 8': { 3: lcms.TYPE_RGB_8, 4: lcms.TYPE_RGBA_8 },
  'RGB 16': { 3: lcms.TYPE_RGB_16, 4: lcms.TYPE_RGBA_16 },
};

/** A conversion of values from one profile to sRGB. */
export interface Conversion {
  /** Channels of a pixel once it is converted. */
  channels: number;
  convert(values: Uint8Array | Uint16Array): Uint8Array | Uint16Array;
  close(): void;
}

/**
 * Opens the conversion from a profile to sRGB (ICC.1:2022; perceptual intent). Matrix and table profiles of versions 2 and 4 are read by Little CMS.
 * @returns null for a profile that is damaged, or of other channels than the picture's: it is left out of account, as browsers do
 */
export async function openConversion(profile: Uint8Array, channels: number, isDeep: boolean): Promise<Conversion | null> {
  const module = await load();
  const input = openProfile(module, profile);
  if (!input) return null;
  const output = module.cmsCreate_sRGBProfile();
  const transform = transformOf(module, input, output, channels, isDeep);
  module.cmsCloseProfile(input);
  module.cmsCloseProfile(output);
  if (!transform) return null;
  return {
    channels: channels % 2 === 0 ? 4 : 3,
    convert: (values) => module.cmsDoTransform(transform, values, values.length / channels),
    close: () => module.cmsDeleteTransform(transform),
  };
}

function transformOf(module: Module, input: number, output: number, channels: number, isDeep: boolean): number {
  const format = INPUT[`${module.cmsGetColorSpaceASCII(input)} ${isDeep ? 16 : 8}`]?.[channels];
  if (format === undefined) return 0;
  const hasAlpha = channels % 2 === 0;
  const target = hasAlpha ? (isDeep ? lcms.TYPE_RGBA_16 : lcms.TYPE_RGBA_8) : isDeep ? lcms.TYPE_RGB_16 : lcms.TYPE_RGB_8;
  // For 16 bits its quick way goes by a table that is up to 27 of 255 levels off near the edge of the gamut.
  const flags = (hasAlpha ? lcms.cmsFLAGS_COPY_ALPHA : 0) | (isDeep ? lcms.cmsFLAGS_NOOPTIMIZE : 0);
  return module.cmsCreateTransform(input, format, output, target, lcms.INTENT_PERCEPTUAL, flags);
}

/** Opens a profile through the heap: the library's own call puts it on the stack, which a table profile overflows. */
function openProfile(module: Module, profile: Uint8Array): number {
  const at = module._malloc(profile.length);
  module.HEAPU8.set(profile, at);
  // It is copied from there.
  const opened = module._cmsOpenProfileFromMem(at, profile.length);
  module._free(at);
  return opened;
}

/** Converts the values of a picture from its profile, see `openConversion`. */
export async function toSrgb({ data, channels }: Values, profile: Uint8Array): Promise<Values> {
  const isDeep = data instanceof Uint16Array;
  const conversion = await openConversion(profile, channels, isDeep);
  if (!conversion) return { data, channels };
  const count = data.length / channels;
  const made = conversion.channels;
  const out = made === channels ? data : new (isDeep ? Uint16Array : Uint8Array)(count * made);
  for (let i = 0; i < count; i += STRIP) {
    const size = Math.min(STRIP, count - i);
    out.set(conversion.convert(data.subarray(i * channels, (i + size) * channels)), i * made);
  }
  conversion.close();
  return { data: out, channels: made };
}
