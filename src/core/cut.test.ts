import { cut } from './cut';

it('leaves a short name as it is, and shortens a long one to 80 characters and a sign', () => {
  expect(cut('grain')).toBe('grain');
  expect(cut('x'.repeat(80))).toBe('x'.repeat(80));
  expect(cut('x'.repeat(81))).toBe(`${'x'.repeat(80)}…`);
});

it('takes what is no text', () => expect([cut(7), cut(undefined), cut(null)]).toEqual(['7', 'undefined', 'null']));
