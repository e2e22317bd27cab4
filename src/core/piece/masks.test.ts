import { strokeSchema } from '../strokes/schema';
import { setReady } from './rebase';
import { readySchema } from '../ready/schema';
import * as edits from './edits';
import { pieceSchema, type Coat, type Piece } from './schema';

const coat = (id: string, mask: object = {}) => ({ id, source: { kind: 'material', id: 'paper.cold-press', seed: 1 }, mask });
const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'Masks',
  created: 1,
  changed: 1,
  photo: { key: 'k', name: 'k.png', width: 1000, height: 800 },
  coats: [
    coat('a', {
      start: 'none',
      density: 0.5,
      parts: [
        { kind: 'ellipse', op: 'add', cx: 0.4 },
        { kind: 'strokes', density: 0.6, feather: 12, strokes: [{ points: [[0.1, 0.1, 1]] }] },
      ],
    }),
    coat('b'),
  ],
});
const mask = (of: Piece, id: string): Coat['mask'] => of.coats.find((c) => c.id === id)!.mask;
const stroke = strokeSchema.parse({ points: [[0.5, 0.5, 1]] });

it('a stroke joins the last strokes, which keep what else is said of them', () => {
  const after = mask(edits.addStroke('a', stroke)(piece), 'a');
  expect(after.parts).toHaveLength(2);
  expect(after.parts[1]).toMatchObject({ kind: 'strokes', density: 0.6, feather: 12, active: true });
  expect(after.parts[1].strokes).toHaveLength(2);
  expect((after.parts[1].strokes as unknown[])[1]).toBe(stroke);
});

it('a stroke over another part, or over strokes that are off, begins a part of its own, whole', () => {
  const off = edits.changePart('a', 1, { active: false })(piece);
  expect(mask(edits.addStroke('a', stroke)(off), 'a').parts).toHaveLength(3);
  const first = mask(edits.addStroke('b', stroke)(piece), 'b').parts;
  expect(first).toEqual([expect.objectContaining({ kind: 'strokes', density: 1, feather: 0, active: true })]);
});

it('parts change places, and stay at an end', () => {
  const kinds = (of: Piece) => mask(of, 'a').parts.map((p) => p.kind);
  expect(kinds(edits.movePartBy('a', 1, -1)(piece))).toEqual(['strokes', 'ellipse']);
  expect(kinds(edits.movePartBy('a', 0, -1)(piece))).toEqual(['ellipse', 'strokes']);
  expect(kinds(edits.movePartBy('a', 1, 1)(piece))).toEqual(['ellipse', 'strokes']);
});

it('a copied mask is another’s own from then on; a linked one follows', () => {
  const anchored = edits.anchorMask('a', 'lay')(piece);
  expect(mask(anchored, 'a')).toMatchObject({ anchor: 'lay', base: piece.coats[0].lay });
  expect(mask(edits.anchorMask('a', 'photo')(anchored), 'a').base).toBeUndefined();
  const copied = mask(edits.copyMask('a', 'b')(anchored), 'b');
  expect(copied).toMatchObject({ start: 'none', density: 0.5, anchor: 'photo', base: undefined });
  expect(copied.parts).toEqual(mask(piece, 'a').parts);
  expect(mask(edits.linkMask('b', 'a')(piece), 'b')).toMatchObject({ start: 'none', parts: [{ kind: 'coat', coat: 'a', op: 'add' }] });
});

it('a crop keeps parts, the lay they hang on, and their lengths on the same points of the photo', () => {
  const before = edits.setMask('a', { expand: 10, feather: 20 })(edits.anchorMask('a', 'lay')(piece));
  const after = mask(setReady(before, readySchema.parse({ crop: { x: 0.25, y: 0, w: 0.5, h: 1 } })), 'a');
  // Half the width is left: what was at 0.4 of it is at 0.3, and u are 1/2000 of 800 pixels instead of 1000.
  expect(after.parts[0].cx).toBeCloseTo(0.3, 6);
  expect(after.expand).toBeCloseTo(12.5, 6);
  expect(after.feather).toBeCloseTo(25, 6);
  expect(after.parts[1].feather).toBeCloseTo(15, 6);
  expect(after.base).toEqual(setReady(before, readySchema.parse({ crop: { x: 0.25, y: 0, w: 0.5, h: 1 } })).coats[0].lay);
});
