import { joined, letters } from './joined';

/** D50, the white of the profile connection space (ICC.1:2022, 7.2.16). */
export const D50 = [0.9642, 1, 0.8249] as const;

/** Numbers of 15 bits before and 16 behind the point (ICC.1:2022, 4.6). */
export const fixed = (values: readonly number[]): Uint8Array => {
  const view = new DataView(new ArrayBuffer(values.length * 4));
  values.forEach((v, i) => view.setInt32(i * 4, Math.round(v * 65536)));
  return new Uint8Array(view.buffer);
};
export const zeros = (n: number): Uint8Array => new Uint8Array(n);
export const u32 = (...values: number[]): Uint8Array => {
  const view = new DataView(new ArrayBuffer(values.length * 4));
  values.forEach((v, i) => view.setUint32(i * 4, v));
  return new Uint8Array(view.buffer);
};
/** A body filled up to whole words. */
export const padded = (body: Uint8Array): Uint8Array => joined(body, zeros((4 - (body.length % 4)) % 4));

/** The body of a tag of a type. */
export const tagBody = (type: string, ...parts: Uint8Array[]): Uint8Array => joined(letters(type), zeros(4), ...parts);
export const xyzBody = (values: readonly number[]): Uint8Array => tagBody('XYZ ', fixed(values));

/** A text in one language (ICC.1:2022, 10.15). */
export function localised(text: string): Uint8Array {
  const wide = Uint8Array.from({ length: text.length * 2 }, (_, i) => (i % 2 ? text.charCodeAt(i >> 1) : 0));
  return tagBody('mluc', u32(1, 12), letters('enUS'), u32(wide.length, 28), wide);
}

interface Profile {
  /** As the header holds it: 0x04400000 for 4.4. */
  version: number;
  /** Of the connection space: "XYZ " or "Lab ". */
  connection: string;
  /** Bodies by their signatures; equal ones are written once. */
  tags: readonly (readonly [string, Uint8Array])[];
}

/** The bytes of a display profile of RGB (ICC.1:2022, 7). */
export function writeProfile({ version, connection, tags }: Profile): Uint8Array<ArrayBuffer> {
  let at = 128 + 4 + 12 * tags.length;
  const places = new Map<Uint8Array, number>();
  const bodies: Uint8Array[] = [];
  for (const [, body] of tags) {
    if (places.has(body)) continue;
    places.set(body, at);
    const filled = padded(body);
    bodies.push(filled);
    at += filled.length;
  }
  const table = tags.map(([name, body]) => joined(letters(name), u32(places.get(body) as number, body.length)));
  const header = joined(
    u32(at),
    zeros(4),
    u32(version),
    letters(`mntrRGB ${connection}`),
    // 1 January 2026.
    Uint8Array.of(0x07, 0xea, 0, 1, 0, 1, 0, 0, 0, 0, 0, 0),
    letters('acsp'),
    zeros(28),
    fixed(D50),
    zeros(48),
  );
  return joined(header, u32(tags.length), ...table, ...bodies);
}
