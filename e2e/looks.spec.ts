import { readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { ownLooks } from './commandLine';
import { apart, expect, look, openPhoto, openSample, portrait, settled, test, toRail, type, unfold, whole, type Page } from './fixtures';

/** Mean colours at some places of the picture. */
const seen = (page: Page) => Promise.all([0.2, 0.5, 0.8].map((x) => look(page, x, 0.3)));
const off = (a: number[][], b: number[][]) => Math.max(...a.map((colour, i) => apart(colour, b[i])));

/** The photo's tab with all looks. */
async function looks(page: Page): Promise<void> {
  await toRail(page);
  await page.getByTestId('card-photo').click();
  await page.getByRole('tab', { name: 'Presets', exact: true }).click();
}

test('the old mailed card: its stages are compared, and its two tones are kept as a look of one coat and laid on another photo, in place of all', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await openSample(page, 'The light at dusk');
  await settled(page);
  const mailed = await seen(page);
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await expect(page.getByRole('combobox', { name: 'Picture 1' })).toBeVisible();
  const states = await page.getByRole('combobox', { name: 'Picture 1' }).locator('option').allTextContents();
  expect(states.slice(0, 1)).toEqual(['As taken']);
  expect(states.filter((state) => state.startsWith('Up to '))).toHaveLength(3);
  await page.getByRole('combobox', { name: 'Picture 1' }).selectOption({ index: 1 });
  await page.getByRole('button', { name: 'Back to the bench' }).click();

  await ownLooks(page);
  await unfold(page, 'What it holds: everything');
  const parts = await page.getByRole('switch').evaluateAll((all) => all.map((part) => part.getAttribute('aria-label') ?? ''));
  for (const name of parts.filter((part) => !/^(Blue shadows|With painted)/.test(part)))
    await page.getByRole('switch', { name, exact: true }).click();
  await page.getByRole('textbox', { name: 'Name of the look' }).fill('Blue and yellow');
  await page.getByRole('button', { name: 'Save as look' }).click();
  await expect(page.getByText('“Blue and yellow” saved as a look.')).toBeVisible();

  await openPhoto(page, await portrait());
  const before = await seen(page);
  const take = async () => {
    await looks(page);
    await page.getByRole('radio', { name: 'Yours', exact: true }).click();
    const card = page.getByRole('button', { name: 'Blue and yellow', exact: true });
    await card.click();
    await settled(page);
    await page.getByRole('button', { name: 'Use it' }).click();
    await expect(page.getByRole('button', { name: 'Undo: Look Blue and yellow' })).toBeEnabled();
    await toRail(page);
    await whole(page);
    await settled(page);
  };
  await take();
  await expect(page.getByTestId('card-0')).toBeVisible();
  await expect(page.getByTestId('card-1')).toHaveCount(0);
  const once = await seen(page);
  expect(off(once, before)).toBeGreaterThan(3);
  // Laid once more in place of all it is there once.
  await looks(page);
  await page.getByRole('radio', { name: 'In place of all' }).click();
  await take();
  await expect(page.getByTestId('card-1')).toHaveCount(0);
  expect(off(await seen(page), once)).toBeLessThan(0.6);
  expect(mailed).toHaveLength(3);
});

test('a look with a picture goes out as one file and comes in where the picture is not known', { tag: '@phone' }, async ({ page, browser }) => {
  await openSample(page, 'The light at dusk');
  await settled(page);
  await ownLooks(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save look to file' }).click();
  const made = await download;
  expect(made.suggestedFilename()).toBe('The-light-at-dusk.look.zip');
  const file = path.join(os.tmpdir(), `dermatex-look-${process.pid}.zip`);
  await made.saveAs(file);
  const files = unzipSync(readFileSync(file));
  const recipe = JSON.parse(strFromU8(files['recipe.json'])) as { coats: { source: { file?: string } }[] };
  const named = recipe.coats.flatMap((coat) => coat.source.file ?? []);
  expect(Object.keys(files).sort()).toEqual([...named, 'recipe.json'].sort());

  const other = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
  const fresh = await other.newPage();
  await openPhoto(fresh, await portrait());
  const before = await seen(fresh);
  await ownLooks(fresh);
  const chooser = fresh.waitForEvent('filechooser');
  await fresh.getByRole('button', { name: 'Apply a look' }).click();
  await (await chooser).setFiles(file);
  await expect(fresh.getByText('4 coats added by the look.')).toBeVisible();
  await toRail(fresh);
  await whole(fresh);
  await settled(fresh);
  expect(off(await seen(fresh), before)).toBeGreaterThan(3);
  await other.close();
});

test('own looks have a page: renamed, deleted and brought back, and one goes on to a batch', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The light at dusk');
  await settled(page);
  await ownLooks(page);
  await page.getByRole('textbox', { name: 'Name of the look' }).fill('Dusk');
  await page.getByRole('button', { name: 'Save as look' }).click();
  await expect(page.getByText('“Dusk” saved as a look.')).toBeVisible();
  await page.goto('/');
  await page.getByRole('button', { name: 'Looks', exact: true }).click();
  await page.getByRole('button', { name: 'Rename the look Dusk' }).click();
  await page.getByRole('textbox', { name: 'New name of Dusk' }).fill('Old postcard');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('own-look').getByText('Old postcard')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Delete the look Old postcard' }).click();
  await expect(page.getByTestId('own-look')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Apply the look Old postcard to many photos' }).click();
  await expect(page.getByRole('combobox', { name: 'Look' }).locator('option:checked')).toHaveText('Old postcard');
});

test('beside other coats a look is a group of its own, with its own strength', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  const before = await seen(page);
  await looks(page);
  await page.getByRole('button', { name: 'Last reel', exact: true }).click();
  await settled(page);
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/^Last reel · normal, 100 %/);
  await settled(page);
  const laid = await seen(page);
  expect(off(laid, before)).toBeGreaterThan(3);
  // What the look does to the photo itself stays.
  await page.getByRole('button', { name: 'Hide Last reel', exact: true }).click();
  await settled(page);
  const none = await seen(page);
  await page.getByRole('button', { name: 'Show Last reel', exact: true }).click();
  await type(page, 'Strength', '50');
  await settled(page);
  const half = none.map((colour, i) => colour.map((v, k) => (v + laid[i][k]) / 2));
  expect(off(await seen(page), half)).toBeLessThan(1.2);
});
