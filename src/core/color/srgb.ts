/** sRGB transfer functions (IEC 61966-2-1) and conversions for single colours; pictures go through kernels. */
export const toLinear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
export const toEncoded = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);

/** Linear values of the 256 levels. */
export const linearTable: readonly number[] = Array.from({ length: 256 }, (_, v) => toLinear(v / 255));

export type Triple = [number, number, number];

/** '#rrggbb' to encoded 0..1. @throws RangeError on anything else. */
export function parseHex(hex: string): Triple {
  const m = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!m) throw new RangeError(`A colour is written #rrggbb, got "${hex}".`);
  return [parseInt(m[1], 16) / 255, parseInt(m[2], 16) / 255, parseInt(m[3], 16) / 255];
}

const labCurve = (t: number) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29);

/** Encoded sRGB (0..1) to CIE L*a*b* with the D65 white of sRGB. */
export function srgbToLab([r, g, b]: Triple): Triple {
  const [lr, lg, lb] = [toLinear(r), toLinear(g), toLinear(b)];
  const x = labCurve((0.4123907992659595 * lr + 0.357584339383878 * lg + 0.1804807884018343 * lb) / 0.9504559270516716);
  const y = labCurve(0.21263900587151036 * lr + 0.715168678767756 * lg + 0.07219231536073371 * lb);
  const z = labCurve((0.01933081871559185 * lr + 0.11919477979462599 * lg + 0.9505321522496606 * lb) / 1.0890577507598784);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
