import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { runHere } from './testing';

jest.setTimeout(240_000);

const root = process.env.DERMATEX_ROOT ?? process.cwd();
const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-pieces-'));
const demo = (...names: string[]) => path.join(root, 'demo', ...names);
const made = (name: string) => path.join(folder, name);

/** Structural similarity (Wang et al. 2004) of two pictures under a mask. */
async function similarity(a: string, b: string, mask: string): Promise<number> {
  const { out } = await runHere(['measure', a, b, '--mask', mask]);
  return Number(/ssim ([\d.]+)/.exec(out)?.[1]);
}

it.each([
  ['retouched', 'signal-officer'],
  ['porcelain', 'keeper'],
])('the sample piece %s does not change the guarded parts of the face', async (piece, photo) => {
  const before = demo('photos', `${photo}.jpg`);
  const after = made(`${piece}.png`);
  expect((await runHere(['render', '--photo', before, '--recipe', demo('pieces', `${piece}.json`), '--out', after])).status).toBe(0);
  const masks = made(`guards-${photo}`);
  expect((await runHere(['guards', '--photo', before, '--out', masks])).status).toBe(0);
  for (const region of ['eyes', 'lips', 'nostrils', 'brows'])
    expect(await similarity(before, after, path.join(masks, `${region}.png`))).toBeGreaterThanOrEqual(0.98);
  // The check is of something: the skin has changed.
  expect(await similarity(before, after, path.join(masks, 'skin.png'))).toBeLessThan(0.98);
});
