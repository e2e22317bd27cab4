import { expect, facet, lay, openPhoto, portrait, settled, test, unfold, type Page } from './fixtures';

/** The bytes of the picture on the bench, as one number. */
const picture = (page: Page) =>
  page.evaluate(() => {
    const canvas = document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    return data.reduce((sum, v, i) => (sum + v * ((i % 97) + 1)) % 1_000_000_007, 0);
  });

test('the light on a material is turned on the picture, left out, and taken back', async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Cold-press paper');
  await facet(page, 'Material');
  await unfold(page, 'Its light');
  const made = await picture(page);

  await page.getByRole('radio', { name: 'From a side' }).click();
  const handle = page.getByRole('button', { name: 'Where the light comes from' });
  await expect(handle).toBeVisible();
  await settled(page);
  const box = (await handle.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y - 10, { steps: 4 });
  await page.mouse.move(x + 90, y - 10, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  const turned = await picture(page);
  expect(turned).not.toBe(made);

  await page.getByRole('radio', { name: 'Left out' }).click();
  await expect(handle).toHaveCount(0);
  await settled(page);
  expect(await picture(page)).not.toBe(turned);

  await page.getByRole('button', { name: /^Undo/ }).click();
  await settled(page);
  expect(await picture(page)).toBe(turned);
});

test('skin from noise is embossed from its own side until the light comes from another', async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Skin from noise');
  await facet(page, 'Material');
  const own = page.getByText('Emboss from', { exact: true });
  await unfold(page, 'Its light');
  await page.getByRole('radio', { name: 'As made' }).click();
  await expect(own).toBeVisible();
  await settled(page);
  const made = await picture(page);

  await page.getByRole('radio', { name: 'From a side' }).click();
  await expect(own).toHaveCount(0);
  await settled(page);
  const fromASide = await picture(page);
  expect(fromASide).not.toBe(made);

  await page.getByRole('radio', { name: 'As made' }).click();
  await expect(own).toBeVisible();
  await expect.poll(() => picture(page)).not.toBe(fromASide);
});
