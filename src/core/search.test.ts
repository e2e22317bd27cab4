import { materials } from './materials';
import { controlsOf } from './schema';
import { isFoundBy } from './search';
import { sources } from './sources';
import { treatments } from './treatments';

describe('a search', () => {
  it('wants every word, in any order and case, as a part of what is said', () => {
    const words = ['Black and white', 'Grey desaturate', undefined];
    expect(isFoundBy(words, 'WHITE black')).toBe(true);
    expect(isFoundBy(words, ' desat ')).toBe(true);
    expect(isFoundBy(words, 'black red')).toBe(false);
  });
  it('finds everything when it is empty', () => expect(isFoundBy([], '  ')).toBe(true));
});

// Words that photographers type; common practice, no source.
it.each([
  ['raised', 'relief'],
  ['emboss', 'relief'],
  ['displace', 'drape'],
  ['sepia', 'tint'],
  ['duotone', 'remap'],
  ['black and white', 'monochrome'],
  ['fade', 'curves'],
  ['split toning', 'ranges'],
  ['denoise', 'noise'],
  ['clarity', 'local-contrast'],
  ['hdr', 'local-tone'],
  ['temperature', 'balance'],
])('“%s” finds the effect %s', (word, kind) => {
  const found = treatments.filter((t) => isFoundBy([t.label, t.words], word)).map((t) => t.kind);
  // Kinds are written with or without a hyphen.
  expect(found.map((k) => k.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`))).toContain(kind);
});

it.each([
  ['vignette', 'Vignette'],
  ['dark corners', 'Vignette'],
  ['film', 'Grain'],
  ['sepia', 'Adjustment'],
  ['double', 'Copy of the photo'],
])('“%s” finds the coat %s', (word, label) => {
  const found = sources.flatMap((s) => s.offers ?? []).filter((o) => isFoundBy([o.label, o.says, o.words], word));
  expect(found.map((o) => o.label)).toContain(label);
});

// A name of the code once came to stand in a sentence when it was renamed everywhere.
it('says nothing in names of the code', () => {
  const entries = [
    ...materials.map(({ label, help, params }) => ({ label, help, params })),
    ...treatments.map(({ label, schema }) => ({ label, help: undefined, params: schema })),
  ];
  const said = entries.flatMap(({ label, help, params }) => [label, help, ...controlsOf(params).flatMap(({ meta }) => [meta.label, meta.help])]);
  expect(said.length).toBeGreaterThan(500);
  expect(said.filter((text) => text && /[a-z][A-Z]/.test(text))).toEqual([]);
});
