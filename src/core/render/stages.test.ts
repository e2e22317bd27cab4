import { drawPiece } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema } from '../piece/schema';
import { readySchema } from '../ready/schema';
import { stagesOf } from './stages';

const coats = ['a', 'b', 'c'].map((id) => coatSchema.parse({ id, source: { kind: 'colour', colour: '#808080' }, blend: 'multiply' }));
const ready = readySchema.parse({ crop: { x: 0.1, y: 0, w: 0.5, h: 1 }, tone: { exposure: 1 } });

describe('the stages of the work', () => {
  it('are the photo as taken and as readied, then one coat after another, and the texture alone', () => {
    expect(stagesOf({ coats, ready }).map(({ id, piece }) => [id, piece.coats.length])).toEqual([
      ['taken', 0],
      ['readied', 0],
      ['upTo:a', 1],
      ['upTo:b', 2],
      ['now', 3],
      ['texture', 3],
    ]);
  });

  it('as taken keeps the frame, so that all lie over each other, and drops what was adjusted', () => {
    const [taken] = stagesOf({ coats, ready });
    expect(taken.piece.ready?.crop).toEqual(ready.crop);
    expect(taken.piece.ready?.tone).toBeUndefined();
  });

  it('leave out coats that do not show, and the readied photo where nothing was readied', () => {
    const [a, b, c] = coats;
    expect(stagesOf({ coats: [a, { ...b, visible: false }, { ...c, strength: 0 }], ready: undefined }).map(({ id }) => id)).toEqual([
      'taken',
      'now',
      'texture',
    ]);
    expect(stagesOf({ coats: [], ready: undefined }).map(({ id }) => id)).toEqual(['taken', 'now']);
  });
});

it('the texture alone is the coats on mid grey: multiply by grey makes a quarter of white of it, whatever the photo (W3C Compositing, multiply)', () => {
  const bench = testBench(64);
  const photo = bench.picture(32, 24, (x) => [x * 8, 255 - x * 8, 90]);
  const [grey] = coats;
  const drawn = drawPiece(bench, { photo, coats: [grey], view: { kind: 'texture' } });
  for (let i = 0; i < drawn.length; i += 4) expect([...drawn.slice(i, i + 4)]).toEqual([64, 64, 64, 255]);
});
