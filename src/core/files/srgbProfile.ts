import { joined, letters } from './joined';

/** sRGB's primaries and white as an ICC profile gives them, adapted to D50 (ICC.1:2022, annex E; the values of the ICC's own sRGB profiles). */
const PRIMARIES = { rXYZ: [0.43607, 0.22249, 0.01392], gXYZ: [0.38515, 0.71687, 0.09708], bXYZ: [0.14307, 0.06061, 0.7141] } as const;
const D50 = [0.9642, 1, 0.8249] as const;
/** Bradford's matrix from D65 to D50. */
const ADAPTATION = [1.04788, 0.02292, -0.0502, 0.02959, 0.99048, -0.01707, -0.00925, 0.01508, 0.75168] as const;
/** IEC 61966-2-1: gamma, then a, b, c and d of the curve's two parts (ICC.1:2022, 10.18, function 3). */
const CURVE = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045] as const;

const s15 = (values: readonly number[]) => {
  const view = new DataView(new ArrayBuffer(values.length * 4));
  values.forEach((v, i) => view.setInt32(i * 4, Math.round(v * 65536)));
  return new Uint8Array(view.buffer);
};
const zeros = (n: number) => new Uint8Array(n);
const u32 = (...values: number[]) => {
  const view = new DataView(new ArrayBuffer(values.length * 4));
  values.forEach((v, i) => view.setUint32(i * 4, v));
  return new Uint8Array(view.buffer);
};

/** A text in one language (ICC.1:2022, 10.15). */
function localised(text: string): Uint8Array {
  const wide = Uint8Array.from({ length: text.length * 2 }, (_, i) => (i % 2 ? text.charCodeAt(i >> 1) : 0));
  return joined(letters('mluc'), zeros(4), u32(1, 12), letters('enUS'), u32(wide.length, 28), wide);
}

function make(): Uint8Array<ArrayBuffer> {
  const xyz = (values: readonly number[]) => joined(letters('XYZ '), zeros(4), s15(values));
  const curve = joined(letters('para'), zeros(4), Uint8Array.of(0, 3, 0, 0), s15(CURVE));
  const tags: [string, Uint8Array][] = [
    ['desc', localised('sRGB')],
    ['cprt', localised('No copyright')],
    ['wtpt', xyz(D50)],
    ...Object.entries(PRIMARIES).map(([name, values]): [string, Uint8Array] => [name, xyz(values)]),
    ['rTRC', curve],
    ['gTRC', curve],
    ['bTRC', curve],
    ['chad', joined(letters('sf32'), zeros(4), s15(ADAPTATION))],
  ];
  let at = 128 + 4 + 12 * tags.length;
  const places = new Map<Uint8Array, number>();
  const bodies: Uint8Array[] = [];
  for (const [, body] of tags) {
    if (places.has(body)) continue;
    places.set(body, at);
    const filled = joined(body, zeros((4 - (body.length % 4)) % 4));
    bodies.push(filled);
    at += filled.length;
  }
  const table = tags.map(([name, body]) => joined(letters(name), u32(places.get(body) as number, body.length)));
  const header = joined(
    u32(at),
    zeros(4),
    u32(0x04400000),
    letters('mntrRGB XYZ '),
    // 1 January 2026.
    Uint8Array.of(0x07, 0xea, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0),
    letters('acsp'),
    zeros(28),
    s15(D50),
    zeros(48),
  );
  return joined(header, u32(tags.length), ...table, ...bodies);
}

let made: Uint8Array<ArrayBuffer> | null = null;

/** An ICC profile (version 4.4) that says sRGB, for files that name their colours so. */
export const srgbProfile = (): Uint8Array<ArrayBuffer> => (made ??= make());
