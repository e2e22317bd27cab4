import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { crc32, deflateSync } from 'node:zlib';
import { D50, fixed, localised, padded, tagBody, u32, writeProfile, xyzBody, zeros } from '../core/files/iccWriter';
import { joined, letters } from '../core/files/joined';
import { writeTiff } from '../core/files/tiffWriter';
import { ciede2000 } from '../core/color/difference';
import { srgbToLab, type Triple } from '../core/color/srgb';

// Profiles of each kind that files carry, made here from their specifications (ICC.1:2001-04 for version 2, ICC.1:2022 for version 4), and colours in them.

/** A wide gamut: primaries adapted to D50, as sums of XYZ that make D50 together. */
const RED = [0.6097, 0.3111, 0.0195];
const GREEN = [0.2053, 0.6257, 0.0609];
const BLUE = D50.map((v, i) => v - RED[i] - GREEN[i]);
const u16 = (values: readonly number[]) => Uint8Array.from(values.flatMap((v) => [v >> 8, v & 255]));
const u8f8 = (v: number) => u16([Math.round(v * 256)]);

/** Text of version 2. */
const described = (text: string) => tagBody('desc', u32(text.length + 1), letters(`${text}\0`), zeros(4 + 4 + 2 + 1 + 67));
const primaries = (): [string, Uint8Array][] => [
  ['wtpt', xyzBody(D50)],
  ['rXYZ', xyzBody(RED)],
  ['gXYZ', xyzBody(GREEN)],
  ['bXYZ', xyzBody(BLUE)],
];
const curves = (curve: Uint8Array): [string, Uint8Array][] => ['rTRC', 'gTRC', 'bTRC'].map((name) => [name, curve]);

/** What a table holds: Lab of a colour whose channels have a gamma of 1.8. */
function labOf(rgb: readonly number[]): number[] {
  const linear = rgb.map((v) => v ** 1.8);
  const f = (t: number) => (t > 216 / 24389 ? Math.cbrt(t) : (t * 24389) / 27 / 116 + 16 / 116);
  const [x, y, z] = [0, 1, 2].map((i) => f((linear[0] * RED[i] + linear[1] * GREEN[i] + linear[2] * BLUE[i]) / D50[i]));
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
const clamped = (v: number) => Math.max(0, Math.min(65535, Math.round(v)));
const SIDE = 17;
function table(encode: (lab: number[]) => number[]): Uint8Array {
  const values: number[] = [];
  for (let r = 0; r < SIDE; r++)
    for (let g = 0; g < SIDE; g++) for (let b = 0; b < SIDE; b++) values.push(...encode(labOf([r, g, b].map((v) => v / (SIDE - 1)))).map(clamped));
  return u16(values);
}

export const testProfiles: Record<string, () => Uint8Array> = {
  'version 2, matrix': () =>
    writeProfile({
      version: 0x02400000,
      connection: 'XYZ ',
      tags: [
        ['desc', described('Wide')],
        ['cprt', tagBody('text', letters('None\0'))],
        ...primaries(),
        ...curves(tagBody('curv', u32(1), u8f8(2.2))),
      ],
    }),
  'version 4, matrix with curves of two parts': () =>
    writeProfile({
      version: 0x04400000,
      connection: 'XYZ ',
      tags: [
        ['desc', localised('Wide')],
        ['cprt', localised('None')],
        ...primaries(),
        ...curves(tagBody('para', Uint8Array.of(0, 3, 0, 0), fixed([1.8, 1, 0, 1 / 16, 0.03125]))),
      ],
    }),
  'version 2, table': () =>
    writeProfile({
      version: 0x02400000,
      connection: 'Lab ',
      tags: [
        ['desc', described('Table')],
        ['cprt', tagBody('text', letters('None\0'))],
        ['wtpt', xyzBody(D50)],
        [
          'A2B0',
          // lut16Type (ICC.1:2001-04, 6.5.7): a unit matrix, straight curves, and Lab as version 2 counts it.
          tagBody(
            'mft2',
            Uint8Array.of(3, 3, SIDE, 0),
            fixed([1, 0, 0, 0, 1, 0, 0, 0, 1]),
            u16([2, 2]),
            u16([0, 65535, 0, 65535, 0, 65535]),
            table(([l, a, b]) => [(l / 100) * 65280, (a + 128) * 256, (b + 128) * 256]),
            u16([0, 65535, 0, 65535, 0, 65535]),
          ),
        ],
      ],
    }),
  'version 4, table': () => {
    const straight = tagBody('curv', u32(0));
    const three = joined(padded(straight), padded(straight), padded(straight));
    const values = table(([l, a, b]) => [(l / 100) * 65535, ((a + 128) / 255) * 65535, ((b + 128) / 255) * 65535]);
    const clut = padded(
      joined(
        Uint8Array.from({ length: 16 }, (_, i) => (i < 3 ? SIDE : 0)),
        Uint8Array.of(2, 0, 0, 0),
        values,
      ),
    );
    const [atB, atClut] = [32, 32 + three.length];
    return writeProfile({
      version: 0x04400000,
      connection: 'Lab ',
      tags: [
        ['desc', localised('Table')],
        ['cprt', localised('None')],
        ['wtpt', xyzBody(D50)],
        // lutAToBType (ICC.1:2022, 10.12): curves, table, curves.
        ['A2B0', tagBody('mAB ', Uint8Array.of(3, 3, 0, 0), u32(atB, 0, 0, atClut, atClut + clut.length), three, clut, three)],
      ],
    });
  },
};

/** Colours of a picture: so many across and down, each in a square of so many pixels. */
const [ACROSS, DOWN, SQUARE] = [20, 10, 8];
const COUNT = ACROSS * DOWN;

/** Two hundred colours of 16 bits: the corners of the cube, greys, and others spread over it. */
export const colours: readonly Triple[] = Array.from({ length: COUNT }, (_, i): Triple => {
  if (i < 8) return [i & 1, (i >> 1) & 1, i >> 2].map((v) => v * 65535) as Triple;
  if (i < 24) return Array<number>(3).fill(Math.round(((i - 8) / 15) * 65535)) as Triple;
  // A sequence of low discrepancy (Roberts 2018), so that no part of the cube is left out.
  return [0.8191725133961645, 0.6710436067037893, 0.5497004779019703].map((step) => Math.floor(((i * step) % 1) * 65536)) as Triple;
});

const pixels = <T extends Uint8Array | Uint16Array>(out: T, channels: number, most: number): T => {
  const width = ACROSS * SQUARE;
  for (let p = 0; p < out.length / channels; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    const colour = colours[Math.floor(y / SQUARE) * ACROSS + Math.floor(x / SQUARE)];
    for (let c = 0; c < channels; c++) out[p * channels + c] = c === 3 ? most : Math.round((colour[c] / 65535) * most);
  }
  return out;
};
const SIZE = { width: ACROSS * SQUARE, height: DOWN * SQUARE };
const PIXELS = SIZE.width * SIZE.height;

/** The colours as a TIFF of 16 bits with a profile. */
export const profiledTiff = (profile: Uint8Array): Uint8Array =>
  writeTiff({ pixels: pixels(new Uint16Array(PIXELS * 4), 4, 65535), ...SIZE, profile });

/** The colours as a PNG of 8 or 16 bits with a profile (PNG, 3rd edition, 11.3.2.3). */
export function profiledPng(profile: Uint8Array, bits: 8 | 16): Uint8Array {
  const values = bits === 16 ? pixels(new Uint16Array(PIXELS * 3), 3, 65535) : pixels(new Uint8Array(PIXELS * 3), 3, 255);
  const row = (SIZE.width * 3 * bits) / 8;
  const raw = Buffer.alloc((row + 1) * SIZE.height);
  for (let y = 0; y < SIZE.height; y++)
    for (let i = 0; i < SIZE.width * 3; i++) {
      const at = y * (row + 1) + 1;
      if (bits === 16) raw.writeUInt16BE(values[y * SIZE.width * 3 + i], at + 2 * i);
      else raw[at + i] = values[y * SIZE.width * 3 + i];
    }
  const chunk = (type: string, data: Uint8Array) => {
    const body = joined(letters(type), data);
    return joined(u32(data.length), body, u32(crc32(body)));
  };
  return joined(
    Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10),
    chunk('IHDR', joined(u32(SIZE.width, SIZE.height), Uint8Array.of(bits, 2, 0, 0, 0))),
    chunk('iCCP', joined(letters('test\0\0'), deflateSync(profile))),
    chunk('IDAT', deflateSync(raw)),
    chunk('IEND', zeros(0)),
  );
}

/** Whether transicc of Debian's liblcms2-utils is there. */
export function hasTransicc(): boolean {
  try {
    execFileSync('which', ['transicc']);
    return true;
  } catch {
    return false;
  }
}

/**
 * The largest CIEDE2000 of the colours of a picture of so many bits, converted to RGB of 16 bits, from what littlecms' own transicc says of them.
 */
export function offTransicc(file: string, profile: Uint8Array, bits: 8 | 16, got: Uint16Array): number {
  writeFileSync(`${file}.icc`, profile);
  const input = colours
    .map((colour) => colour.map((v) => (bits === 8 ? Math.round((v / 65535) * 255) : (v / 65535) * 255).toFixed(6)).join(' '))
    .join('\n');
  const said = execFileSync('transicc', ['-i', `${file}.icc`, '-o', '*sRGB', '-t0', '-n'], {
    input: `${input}\n`,
    stdio: ['pipe', 'pipe', 'ignore'],
  });
  const wanted = said
    .toString()
    .trim()
    .split('\n')
    .map(
      (line) =>
        line
          .trim()
          .split(/\s+/)
          .map((v) => Math.max(0, Math.min(1, Number(v) / 255))) as Triple,
    );
  if (wanted.length !== COUNT) throw new Error(`transicc gave ${wanted.length} colours.`);
  const middle = SQUARE / 2;
  return Math.max(
    ...wanted.map((colour, i) => {
      const pixel = (Math.floor(i / ACROSS) * SQUARE + middle) * SIZE.width + (i % ACROSS) * SQUARE + middle;
      const own = [0, 1, 2].map((c) => got[3 * pixel + c] / 65535) as Triple;
      return ciede2000(srgbToLab(own), srgbToLab(colour));
    }),
  );
}
