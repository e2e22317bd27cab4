import { gammaChunks } from './gamma';

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
/** A chunk of a PNG: length, name, data, check sum (ISO/IEC 15948, 5.3); the check sum is not read here. */
const chunk = (name: string, length: number): number[] => [
  ...[24, 16, 8, 0].map((shift) => (length >> shift) & 255),
  ...[...name].map((c) => c.charCodeAt(0)),
  ...Array.from({ length: length + 4 }, () => 0),
];
const png = (...chunks: number[][]) => Uint8Array.from([...SIGNATURE, ...chunk('IHDR', 13), ...chunks.flat()]);
const HEAD = 8 + 25;

describe('chunks that bend the values of a PNG', () => {
  it('are found where they lie, gamma and primaries', () => {
    expect(gammaChunks(png(chunk('gAMA', 4), chunk('pHYs', 9), chunk('cHRM', 32), chunk('IDAT', 10)))).toEqual([
      [HEAD, HEAD + 16],
      [HEAD + 16 + 21, HEAD + 16 + 21 + 44],
    ]);
  });
  it.each(['sRGB', 'iCCP', 'cICP'])('do not count beside %s, which says it better', (name) => {
    expect(gammaChunks(png(chunk('gAMA', 4), chunk(name, 20), chunk('IDAT', 10)))).toEqual([]);
  });
  it('are not looked for behind the first pixels, or in other files', () => {
    expect(gammaChunks(png(chunk('IDAT', 10), chunk('gAMA', 4)))).toEqual([]);
    expect(gammaChunks(Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 0, 0, 0, 0, 0]))).toEqual([]);
  });
  it('of a head that is cut short end with it', () => {
    const whole = png(chunk('gAMA', 4), chunk('cHRM', 32));
    expect(gammaChunks(whole.subarray(0, HEAD + 16 + 5))).toEqual([[HEAD, HEAD + 16]]);
  });
});
