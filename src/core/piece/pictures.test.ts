import { marksOf } from '../materials';
import { grainOf, marksOfSource, sourceOfGrain } from './grain';
import { filesOf, withFiles } from './pictures';
import { coatSchema } from './schema';

const stroke = (material?: object) => ({ tip: 'cut', material, points: [[0.5, 0.5, 1]] });
const coat = coatSchema.parse({
  id: 'a',
  source: { kind: 'picture', file: 'sky.png' },
  mask: {
    parts: [
      { kind: 'material', file: 'ink.png' },
      { kind: 'material', id: 'cracks.glaze' },
      { kind: 'strokes', strokes: [stroke({ file: 'leaf.png' }), stroke({ id: 'brush.dry' })] },
    ],
  },
});

describe('the pictures of a coat', () => {
  it('are those of its source, its masks and its tips', () => {
    expect(filesOf(coat)).toEqual(['sky.png', 'ink.png', 'leaf.png']);
    expect(filesOf(coatSchema.parse({ id: 'b', source: { kind: 'cutout' } }))).toEqual([]);
  });
  it('are found under other names, the source with its size; nothing else changes', () => {
    const found = withFiles(coat, (file) => ({ file: `kept:${file}`, width: 30, height: 20 }));
    expect(filesOf(found)).toEqual(['kept:sky.png', 'kept:ink.png', 'kept:leaf.png']);
    expect(found.source).toMatchObject({ width: 30, height: 20 });
    expect(found.mask.parts[1]).toEqual(coat.mask.parts[1]);
    expect(coatSchema.safeParse(found).success).toBe(true);
    const plain = coatSchema.parse({ id: 'c', source: { kind: 'below' } });
    expect(withFiles(plain, () => ({ file: 'x' }))).toBe(plain);
  });
});

describe('what a mask or a tip is cut from', () => {
  it('is an entry of the shelf, made or own, and back again', () => {
    const made = { kind: 'material', id: 'cracks.glaze', seed: 4, params: {} };
    expect(sourceOfGrain(grainOf(made))).toEqual(made);
    expect(sourceOfGrain(grainOf({ kind: 'picture', file: 'k' }))).toEqual({ kind: 'picture', file: 'k' });
  });
  it('counts by its dark marks on a light ground, else by its lights (common practice, no source)', () => {
    expect(['cracks.glaze', 'wear.splatter', 'cracks.mud', 'wear.rings'].map(marksOf)).toEqual(Array(4).fill('darks'));
    expect(['wear.film', 'air.rain', 'brush.dry', 'wear.fingerprints'].map(marksOf)).toEqual(Array(4).fill('lights'));
    expect(marksOfSource({ kind: 'picture', file: 'ink.png' })).toBe('darks');
  });
});
