import { newCoat, type SourceInput } from '../piece/edits';
import { modeById } from '../blend';
import { sources } from '.';

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
