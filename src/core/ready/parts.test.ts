import { partsOf, withParts } from './parts';
import { readySchema } from './schema';

const ready = (r: object) => readySchema.parse(r);
const rich = ready({
  quarter: 1,
  crop: { w: 0.5 },
  whiteBalance: { neutral: [0.5, 0.5], warmth: 0.2 },
  tone: { exposure: 1 },
  hues: [{ hue: 40, saturation: 0.3 }],
  noise: { luma: 0.4 },
  spots: [{ points: [[0.5, 0.5]] }],
});

describe('parts of a readying', () => {
  it('are those that differ from the photo as it was taken', () => {
    expect(partsOf(rich)).toEqual(['frame', 'balance', 'light', 'colour', 'detail']);
    expect(partsOf(ready({}))).toEqual([]);
    expect(partsOf(ready({ lens: { k1: -0.1 } }))).toEqual(['lens']);
  });
  it('are put on another photo one by one, its own spots and picked grey left behind', () => {
    const own = ready({ tone: { exposure: -1 }, spots: [{ points: [[0.1, 0.1]], size: 9 }] });
    const mixed = withParts(own, rich, ['balance', 'colour']);
    expect(mixed.tone?.exposure).toBe(-1);
    expect(mixed.crop.w).toBe(1);
    expect(mixed.whiteBalance).toMatchObject({ warmth: 0.2 });
    expect(mixed.whiteBalance?.neutral).toBeUndefined();
    expect(mixed.hues).toHaveLength(1);
    expect(mixed.spots).toEqual(own.spots);
    const all = withParts(own, rich, partsOf(rich));
    expect(all.quarter).toBe(1);
    expect(all.noise?.luma).toBe(0.4);
    expect(readySchema.safeParse(all).success).toBe(true);
    // A part that the other has left alone is taken away.
    expect(withParts(own, ready({}), ['light']).tone).toBeUndefined();
  });
});
