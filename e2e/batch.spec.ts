import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { expect, test, type Page } from './fixtures';

const COUNT = 12;
const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-batch-'));
const file = (name: string) => path.join(folder, name);

/** Photos of several sizes, one of which is none. */
async function photos(): Promise<string[]> {
  const names = Array.from({ length: COUNT }, (_, i) => file(`shot-${i}.png`));
  await Promise.all(
    names.map((name, i) =>
      sharp('demo/photos/light-at-dusk.jpg')
        .resize(240 + 10 * i, 160 + 20 * (i % 3), { fit: 'fill' })
        .toFile(name),
    ),
  );
  writeFileSync(file('letter.png'), 'Dear keeper');
  return [...names, file('letter.png')];
}

const done = async (page: Page) => Number(/^(\d+) of/.exec((await page.getByTestId('batch-done').textContent()) ?? '')?.[1]);

test('twelve photos in one look: stopped, the tab closed, taken up again, nothing done twice, and each as the command line makes it', async ({
  page,
  context,
}) => {
  test.setTimeout(300_000);
  await page.goto('/batch');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose photos' }).click();
  await (await chooser).setFiles(await photos());
  await expect(page.getByText('13 photos chosen')).toBeVisible();
  await page.getByRole('combobox', { name: 'Look' }).selectOption({ label: 'Stained sheet' });
  await page.getByRole('radio', { name: 'PNG' }).click();
  await page.getByRole('textbox', { name: 'Names of the results' }).fill('{number} {name}');
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect.poll(() => done(page), { timeout: 120_000 }).toBeGreaterThanOrEqual(2);
  await page.getByRole('button', { name: 'Pause' }).click();
  await expect(page.getByText('Paused after the photo that is being drawn.')).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
  const before = await done(page);
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect.poll(() => done(page), { timeout: 120_000 }).toBeGreaterThan(before);

  // The tab is gone in the middle of a photo.
  await page.close({ runBeforeUnload: false });
  const next = await context.newPage();
  await next.goto('/batch');
  await expect(next.getByText('“Stained sheet” on 13 photos')).toBeVisible();
  const kept = await done(next);
  expect(kept).toBeGreaterThan(before);
  await expect(next.getByRole('button', { name: /^Look at / })).toHaveCount(kept);
  await next.getByRole('button', { name: 'Go on' }).click();
  await expect(next.getByText('12 of 13 done, 1 failed')).toBeVisible({ timeout: 200_000 });
  await expect(next.getByRole('alert').filter({ hasText: '“letter.png” is not a PNG' })).toBeVisible();

  await next.getByRole('button', { name: 'Look at 001-shot-0' }).click();
  await expect(next.getByRole('dialog').getByRole('img', { name: '001-shot-0' })).toBeVisible();
  await next.getByRole('dialog').getByRole('button', { name: 'Close', exact: true }).click();
  const download = next.waitForEvent('download');
  await next.getByRole('button', { name: 'Save as zip' }).click();
  const zip = await download;
  expect(zip.suggestedFilename()).toBe('Stained-sheet.zip');
  await zip.saveAs(file('results.zip'));
  const results = unzipSync(readFileSync(file('results.zip')));
  expect(Object.keys(results).sort()).toEqual(Array.from({ length: COUNT }, (_, i) => `${String(i + 1).padStart(3, '0')}-shot-${i}.png`));

  // The command line makes the same of the same recipe.
  execFileSync(
    process.execPath,
    [
      'build/cli-main.mjs',
      'batch',
      '--recipe',
      'src/core/looks/recipes/stained-sheet.json',
      '--out',
      file('out'),
      file('shot-3.png'),
      file('shot-7.png'),
    ],
    { env: { ...process.env, DERMATEX_ROOT: process.cwd() } },
  );
  for (const i of [3, 7]) {
    const [a, b] = await Promise.all(
      [Buffer.from(results[`00${i + 1}-shot-${i}.png`]), file(`out/shot-${i}.png`)].map((one) => sharp(one).removeAlpha().raw().toBuffer()),
    );
    expect(a.length).toBe(b.length);
    expect(a.reduce((most, v, k) => Math.max(most, Math.abs(v - b[k])), 0)).toBeLessThanOrEqual(1);
  }
  await next.getByRole('button', { name: 'Clear the list' }).click();
  await expect(next.getByRole('button', { name: 'Choose photos' })).toBeVisible();
  await next.reload();
  await expect(next.getByRole('button', { name: 'Choose photos' })).toBeVisible();
});
