import { finishCoat, finishCurves, setFinishCurves, straightCurves } from './finish';
import { pieceSchema, type Piece } from './schema';
import { variationsOf, variedSteps } from './variations';

const piece = (coats: object[]): Piece =>
  pieceSchema.parse({ dermatex: 1, id: 'p', name: 'P', created: 1, changed: 1, photo: { key: 'k', name: 'k', width: 900, height: 600 }, coats });
const red: [number, number][] = [
  [0, 0],
  [0.5, 0.6],
  [1, 1],
];

describe('curves of the finished piece', () => {
  const start = piece([{ id: 'a', source: { kind: 'material', id: 'paper.cold-press' } }]);
  it('are a coat of their own on top, held back by no guard, and found again', () => {
    const next = setFinishCurves({ red }, 'f', 'Finishing curves')(start);
    expect(next.coats.map((c) => c.id)).toEqual(['a', 'f']);
    expect(next.coats[1]).toMatchObject({ source: { kind: 'below' }, guards: 0, blend: 'normal', strength: 1, name: 'Finishing curves' });
    expect(finishCurves(next)).toEqual({ ...straightCurves, red });
    const again = setFinishCurves({ blue: red }, 'g', 'Finishing curves')(next);
    expect(again.coats.map((c) => c.id)).toEqual(['a', 'f']);
    expect(finishCurves(again)).toEqual({ ...straightCurves, red, blue: red });
  });
  it('start again where something else lies on top, or where curves on top have a mask', () => {
    expect(finishCoat(start)).toBeNull();
    const masked = { id: 'm', source: { kind: 'below' }, treatments: [{ kind: 'curves' }], mask: { parts: [{ kind: 'ellipse' }] } };
    expect(finishCoat(piece([masked]))).toBeNull();
    expect(finishCurves(piece([masked]))).toEqual(straightCurves);
  });
});

describe('variations of a step', () => {
  const [coat] = piece([
    { id: 'a', source: { kind: 'below' }, treatments: [{ kind: 'tone' }, { kind: 'dabs', size: 40, tool: 'brush', seed: 3 }, { kind: 'glow' }] },
  ]).coats;
  it('are offered for every step but its tone, and for what a made coat starts from', () => {
    expect(variedSteps(coat).map((s) => s.label)).toEqual(['Dabs of paint', 'Glow']);
    const [border] = piece([{ id: 'b', source: { kind: 'border' } }]).coats;
    expect(variedSteps(border)).toEqual([{ value: 'source', label: 'Border' }]);
  });
  it('are its strengths, choices, sizes and seeds, each as it says, and never twice', () => {
    const list = variationsOf(coat, '1');
    expect(new Set(list.map((c) => c.key)).size).toBe(list.length);
    expect(list.filter((c) => c.now)).toHaveLength(1);
    const values = list.map(
      (c) => c.edit(piece([coat])).coats[0].treatments[1] as unknown as { size: number; tool: string; seed: number; strength: number },
    );
    expect(new Set(values.map((v) => v.seed)).size).toBe(7);
    expect(values.some((v) => v.tool === 'knife')).toBe(true);
    expect(values.map((v) => v.strength)).toContain(0.5);
    const sizes = [...new Set(values.map((v) => v.size))];
    expect(sizes.length).toBeGreaterThan(4);
    expect(Math.min(...sizes)).toBeGreaterThanOrEqual(6);
    expect(Math.max(...sizes)).toBeLessThanOrEqual(100);
  });
});
