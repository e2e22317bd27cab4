import { parseHex } from '../color/srgb';
import { paletteOf, toHex } from './palette';

describe('a palette', () => {
  it('finds the flat colours of a picture, the larger and more colourful first', () => {
    const parts: [string, number][] = [
      ['#7a8f9c', 600],
      ['#b03a2e', 150],
      ['#20262b', 250],
    ];
    const pixels = parts.flatMap(([hex, n]) => Array.from({ length: n }, () => [...parseHex(hex).map((v) => Math.round(v * 255)), 255]).flat());
    const found = paletteOf(pixels).map(toHex);
    expect([...found].sort()).toEqual(parts.map(([hex]) => hex).sort());
    expect(found[0]).toBe('#b03a2e');
  });
  it('leaves out what is transparent, and colours close to one it has', () => {
    const pixels = [
      ...Array.from({ length: 50 }, () => [200, 40, 40, 255]).flat(),
      ...Array.from({ length: 50 }, () => [205, 44, 42, 255]).flat(),
      0,
      255,
      0,
      10,
    ];
    expect(paletteOf(pixels)).toHaveLength(1);
  });
  it('writes colours as they are read', () => expect(toHex(parseHex('#0a9bff'))).toBe('#0a9bff'));
});
