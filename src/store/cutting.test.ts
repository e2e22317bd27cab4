import { coatSchema, pieceSchema } from '../core/piece/schema';
import { cutFileOf, onCutPicture, setSubject, subjectOf } from './cutting';

const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'p',
  created: 0,
  changed: 0,
  photo: { key: 'wall', name: 'w', width: 1600, height: 1000 },
  coats: [{ id: 'k', source: { kind: 'cutout', file: 'keeper', width: 1200, height: 1500 }, lay: { fit: 'contain' } }],
});
const [coat] = piece.coats;

it('points on the piece are taken to the picture that is cut out, and lengths with them', () => {
  // Contained, it is 800 × 1000 pixels in the middle of 1600 × 1000.
  const { point, length } = onCutPicture(piece, coat);
  expect(point([0.5, 0.5])).toEqual([expect.closeTo(0.5, 9), expect.closeTo(0.5, 9)]);
  expect(point([0.25, 0])).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
  expect(point([0.75, 1])).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
  // 100 u of the piece are 80 pixels of it, 120 of the picture, whose u is 0.75.
  expect(length(100)).toBeCloseTo(160, 6);
});

it('a turned and smaller lay is followed', () => {
  const turned = coatSchema.parse({ ...coat, lay: { fit: 'contain', turn: 90, scale: 0.5 } });
  const { point, length } = onCutPicture(piece, turned);
  const [x, y] = point([0.5, 0.4]);
  // Up on the piece is to the left in what was turned clockwise.
  expect(x).toBeLessThan(0.5);
  expect(y).toBeCloseTo(0.5, 6);
  expect(length(100)).toBeGreaterThan(160);
});

it('corrections are kept with the coat and can be taken away', () => {
  expect(cutFileOf(coat)).toBe('keeper');
  expect(cutFileOf(coatSchema.parse({ id: 'a', source: { kind: 'cutout' } }))).toBeNull();
  const hair = { size: 40, points: [[0.4, 0.2]] as [number, number][] };
  const corrected = setSubject('k', (subject) => ({ ...subject, hairs: [...subject.hairs, hair] }))(piece);
  expect(subjectOf(corrected.coats[0]).hairs).toEqual([hair]);
  expect(pieceSchema.parse(corrected).coats[0].source).toEqual(corrected.coats[0].source);
  expect(subjectOf(setSubject('k', () => undefined)(corrected).coats[0]).hairs).toEqual([]);
});
