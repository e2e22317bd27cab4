import { readFileSync } from 'node:fs';
import path from 'node:path';
import { samples } from '@/store/samples';
import { works } from './works';

it('twelve works, each with steps and a sample of its own that is there', () => {
  expect(works).toHaveLength(12);
  expect(new Set(works.map(({ sample }) => sample)).size).toBe(12);
  for (const { sample, steps } of works) {
    const found = samples.find(({ id }) => id === sample);
    expect([sample, found?.id]).toEqual([sample, sample]);
    const recipe = JSON.parse(readFileSync(path.join(process.cwd(), 'demo/pieces', found?.recipe ?? ''), 'utf8')) as { coats: unknown[] };
    expect(recipe.coats.length).toBeGreaterThan(1);
    for (const step of steps) expect(step).toMatch(/^[A-Z“].*\.$/);
  }
});
