import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { settled, toRail, unfold, type Page } from './fixtures';

/** Your looks, on the photo's own tab. */
export async function ownLooks(page: Page): Promise<void> {
  await toRail(page);
  await page.getByTestId('card-photo').click();
  await page.getByRole('tab', { name: 'Presets', exact: true }).click();
  await unfold(page, 'Your looks');
}

/** Saves the picture as a PNG and comes back to the bench. */
async function savePicture(page: Page, file: string): Promise<void> {
  await settled(page);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: 'PNG' }).click();
  const download = page.waitForEvent('download', { timeout: 120_000 });
  await page.getByRole('button', { name: 'Save the picture' }).click();
  await (await download).saveAs(file);
  await page.getByRole('button', { name: 'Back to the bench' }).click();
}

/** Saves the page's own recipe to a file. */
async function saveRecipe(page: Page, file: string, painted: boolean): Promise<void> {
  await ownLooks(page);
  if (painted) await page.getByRole('switch', { name: 'With painted marks and masks' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save look to file' }).click();
  await (await download).saveAs(file);
}

interface Compared {
  /** Whether the page's recipe is saved with what was painted. */
  painted?: boolean;
  /** The recipe's file, where it is not the page's own. */
  recipe?: string;
}

/** Levels, on average and at most, by which the page's exported picture differs from what the command line makes of a recipe. */
export async function againstCommandLine(
  page: Page,
  photo: string,
  { painted = false, recipe }: Compared = {},
): Promise<{ mean: number; most: number }> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-e2e-'));
  const [exported, own, made] = ['page.png', 'look.json', 'line.png'].map((name) => path.join(folder, name));
  await savePicture(page, exported);
  if (!recipe) await saveRecipe(page, own, painted);
  execFileSync(process.execPath, ['build/cli-main.mjs', 'render', '--photo', photo, '--recipe', recipe ?? own, '--out', made], {
    env: { ...process.env, DERMATEX_ROOT: process.cwd() },
  });
  const [a, b] = await Promise.all([exported, made].map((f) => sharp(f).removeAlpha().raw().toBuffer()));
  if (a.length !== b.length) throw new Error('The two pictures differ in size.');
  let [sum, most] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    const off = Math.abs(a[i] - b[i]);
    sum += off;
    most = Math.max(most, off);
  }
  return { mean: sum / a.length, most };
}
