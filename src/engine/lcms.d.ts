declare module 'lcms-wasm' {
  export const TYPE_GRAY_8: number;
  export const TYPE_GRAYA_8: number;
  export const TYPE_GRAY_16: number;
  export const TYPE_GRAYA_16: number;
  export const TYPE_RGB_8: number;
  export const TYPE_RGBA_8: number;
  export const TYPE_RGB_16: number;
  export const TYPE_RGBA_16: number;
  export const INTENT_PERCEPTUAL: number;
  export const cmsFLAGS_COPY_ALPHA: number;
  export const cmsFLAGS_NOOPTIMIZE: number;

  interface LittleCms {
    HEAPU8: Uint8Array;
    _malloc(bytes: number): number;
    _free(at: number): void;
    _cmsOpenProfileFromMem(at: number, bytes: number): number;
    cmsCreate_sRGBProfile(): number;
    cmsCloseProfile(profile: number): void;
    cmsGetColorSpaceASCII(profile: number): string | null;
    cmsCreateTransform(input: number, inputFormat: number, output: number, outputFormat: number, intent: number, flags: number): number;
    cmsDoTransform(transform: number, values: Uint8Array | Uint16Array, pixels: number): Uint8Array | Uint16Array;
    cmsDeleteTransform(transform: number): void;
  }
  export function instantiate(options?: { locateFile?: (name: string) => string }): Promise<LittleCms>;
}
