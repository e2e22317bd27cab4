import { newCoat, type SourceInput } from '../piece/edits';
import { modeById } from '../blend';
import { sources } from '.';
import { stopColour, type Stop } from './gradient';

const offers = sources.flatMap((source) => (source.offers ?? []).map((offer) => ({ source, offer })));

describe('coats that are offered', () => {
  it.each(offers.map(({ source, offer }) => [offer.label, source, offer] as const))(
    '%s says what it is for, and can be made',
    (_label, source, offer) => {
      expect(offer.says.split(' ').length).toBeLessThanOrEqual(12);
      expect(offer.words ?? '').toBe((offer.words ?? '').toLowerCase());
      const params = source.schema.parse({ kind: source.kind, ...offer.params }) as SourceInput;
      const coat = newCoat('a', params, offer.look && { ...offer.look, name: offer.label });
      expect(() => modeById(coat.blend)).not.toThrow();
      expect(coat.blend).toBe((offer.look ?? source.firstLook).blend);
      expect(coat.strength).toBe((offer.look ?? source.firstLook).strength);
      // What corrects the picture begins without guards, which would make the correction patchy.
      expect(coat.guards).toBe(source.guards);
      expect(coat.name).toBe(offer.look ? offer.label : undefined);
    },
  );
  it('have a name each', () => expect(new Set(offers.map(({ offer }) => offer.label)).size).toBe(offers.length));
});

it('a vignette leaves the middle as it is and darkens towards the corners', () => {
  const { params } = offers.find(({ offer }) => offer.label === 'Vignette')!.offer;
  const { stops, x1, y1 } = params as { stops: Stop[]; x1: number; y1: number };
  // White changes nothing in multiply (W3C Compositing and Blending 1).
  expect(stopColour(stops, 0)).toEqual([1, 1, 1, 1]);
  expect(stopColour(stops, 0.4)).toEqual([1, 1, 1, 1]);
  const lightness = [0.5, 0.6, 0.8, 1].map((t) =>
    stopColour(stops, t)
      .slice(0, 3)
      .reduce((a, b) => a + b),
  );
  lightness.slice(1).forEach((v, i) => expect(v).toBeLessThan(lightness[i]));
  expect([x1, y1].every((v) => Math.abs(v - 0.5) < 0.05)).toBe(true);
});
