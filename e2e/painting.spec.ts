import { againstCommandLine } from './commandLine';
import { addOther, drawn, expect, facet, look, onPhoto, openPhoto, portrait, settled, test, toRail } from './fixtures';

test('ink and wash: a look from photo to export is what the command line makes of its recipe', async ({ page }) => {
  test.setTimeout(180_000);
  const photo = await portrait();
  await openPhoto(page, photo);
  await settled(page);
  await toRail(page);
  await page.getByRole('button', { name: 'Start from a look' }).first().click();
  await page.getByRole('radio', { name: 'Paint' }).click();
  await page.getByRole('button', { name: /^Ink and wash/ }).click();
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/Ink · multiply/);
  await settled(page);
  expect((await againstCommandLine(page, photo, { recipe: 'src/core/looks/recipes/ink-and-wash.json' })).mean).toBeLessThan(0.5);
});

test('a coat of painting opens on its steps, keeps faces finer, and its size is in pixels of the photo', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await settled(page);
  const before = await look(page, 0.2, 0.9, 20);
  await addOther(page, 'Poster shapes');
  // Its tab opens by itself.
  await expect(page.getByRole('heading', { name: 'Poster shapes · normal' })).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Keep faces finer' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Colours, typed' })).toHaveValue('8');
  await settled(page);
  const after = await look(page, 0.2, 0.9, 20);
  expect(Math.max(...after.map((v, c) => Math.abs(v - before[c])))).toBeLessThan(60);
});

test('the middle of a vignette is dragged on the picture', async ({ page }) => {
  await openPhoto(page, await portrait());
  await settled(page);
  await addOther(page, 'Vignette');
  await facet(page, 'Material');
  await expect(page.getByTestId('vignette-handles')).toBeVisible();
  const dark = async () => (await look(page, 0.06, 0.06)).reduce((sum, v) => sum + v);
  const first = await dark();
  const [from, to] = [await onPhoto(page, 0.5, 0.48), await onPhoto(page, 0.2, 0.2)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
  await page.mouse.move(to.x, to.y);
  await page.mouse.up();
  await drawn(page);
  // The corner that it came nearer to is lighter.
  expect(await dark()).toBeGreaterThan(first + 15);
  await expect(page.getByRole('button', { name: 'Undo: Move the vignette' })).toBeVisible();
});
