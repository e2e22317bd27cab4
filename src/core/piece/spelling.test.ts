import { recipeSchema } from './schema';

/** The treatment, or the source, of a recipe that is written so. */
const treatment = (values: object) =>
  recipeSchema.parse({ dermatex: 1, coats: [{ source: { kind: 'below' }, treatments: [values] }] }).coats[0].treatments[0];
const source = (values: object) => recipeSchema.parse({ dermatex: 1, coats: [{ source: values }] }).coats[0].source;

// The shapes that the design names (design.md §7), each accepted as it is written there.
it.each<[object, object]>([
  [
    { kind: 'smooth', radius: 15, tolerance: 65 },
    { kind: 'smooth', radius: 15, tolerance: 65 },
  ],
  [
    { kind: 'patches', size: 10, detail: 0 },
    { kind: 'patches', size: 10, detail: 0 },
  ],
  [
    { kind: 'flow', length: 20, passes: 2, evenOut: 0.5, edges: 0.3 },
    { kind: 'flow', length: 20, passes: 2, even: 0.5, crisp: 0.3 },
  ],
  [
    { kind: 'shapes', colours: 9 },
    { kind: 'shapes', colours: 9 },
  ],
  [
    { kind: 'dabs', sizes: [52, 26, 13], aspect: 4.2, seed: 1 },
    { kind: 'dabs', size: 52, layers: 3, length: 4.2, seed: 1 },
  ],
  [
    { kind: 'ink', width: 3, black: 0.5 },
    { kind: 'ink', width: 3, black: 0.5 },
  ],
  [
    { kind: 'pencil', radius: 8 },
    { kind: 'pencil', radius: 8 },
  ],
  [
    { kind: 'fine', radius: 2, amount: 0.5, darkness: 0.5 },
    { kind: 'fine', radius: 2, amount: 0.5, full: 16 },
  ],
  [
    { kind: 'outline', width: 4, colour: '#000000' },
    { kind: 'outline', width: 4, colour: '#000000' },
  ],
  [
    { kind: 'ripple', size: 40, amount: 6, seed: 1 },
    { kind: 'ripple', size: 40, amount: 6, seed: 1 },
  ],
  [
    { kind: 'glow', radius: 20, amount: 0.5, threshold: 0.6, dark: false },
    { kind: 'glow', radius: 20, light: 0.5, dark: 0, threshold: 0.6 },
  ],
  [
    { kind: 'glow', radius: 20, amount: 0.5, dark: true },
    { kind: 'glow', light: 0, dark: 0.5 },
  ],
  [
    { kind: 'high-pass', radius: 3 },
    { kind: 'split', radius: 3, detail: 1, colour: 0 },
  ],
  [
    { kind: 'double', x: 10, y: 4, turn: 0.5, strength: 0.3 },
    { kind: 'double', right: 10, down: 4, turn: 0.5, amount: 0.3, strength: 1 },
  ],
  [
    { kind: 'two-tone', shadowHue: 220, shadowAmount: 0.3, lightHue: 45, lightAmount: 0.3, balance: 0 },
    { kind: 'two-tones', shadowHue: 220, shadows: 0.3, highlightHue: 45, highlights: 0.3, balance: 0.5 },
  ],
])('%j is read as it is meant', (written, meant) => expect(treatment(written)).toMatchObject(meant));

it('a vignette darkens below 0 and lightens above, unless it says what it does', () => {
  const shape = { size: 0.8, roundness: 0, feather: 0.6, cx: 0.5, cy: 0.5 };
  expect(source({ kind: 'vignette', amount: -0.6, ...shape })).toMatchObject({ does: 'darken', amount: 0.6, ...shape });
  expect(source({ kind: 'vignette', amount: 0.4 })).toMatchObject({ does: 'lighten', amount: 0.4 });
  expect(source({ kind: 'vignette', does: 'darken', amount: 0.4 })).toMatchObject({ does: 'darken', amount: 0.4 });
  expect(source({ kind: 'vignette' })).toMatchObject({ does: 'darken', amount: 0.65 });
});

it('painted marks are read as the design writes them', () => {
  const points = [
    [0.1, 0.5, 1],
    [0.9, 0.5, 1],
  ];
  const strokes = [{ points, size: 100, hardness: 1, strength: 1, flow: 1, tip: 'round', colour: '#20508a' }];
  expect(source({ kind: 'strokes', colour: '#8a2b20', relief: 0, glow: 0, strokes })).toMatchObject({
    strokes: [{ does: 'put', colour: '#20508a', size: 100 }],
  });
});

it('what is read and written again stays the same', () => {
  for (const written of [
    { kind: 'glow', light: 0.3, dark: 0.2 },
    { kind: 'double', right: 5, strength: 0.5 },
    { kind: 'fine', amount: 0.4 },
  ]) {
    const once = treatment(written);
    expect(treatment(once)).toEqual(once);
    expect(once).toMatchObject(written);
  }
});
