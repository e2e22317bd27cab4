import { expect, facet, lay, openPhoto, openSample, portrait, settled, test, toRail } from './fixtures';

const middle = (page: import('@playwright/test').Page) =>
  page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="picture"] canvas')!;
    const small = document.createElement('canvas');
    small.width = small.height = 12;
    small.getContext('2d')!.drawImage(canvas, 0, 0, 12, 12);
    return [...small.getContext('2d')!.getImageData(0, 0, 12, 12).data];
  });
const apart = (a: number[], b: number[]) => a.reduce((sum, v, i) => sum + Math.abs(v - b[i]), 0) / a.length;

test('steps of a coat: found by a word, lit from a dial, switched off, ordered, copied, taken off', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await facet(page, 'Tone');
  await settled(page);
  const before = await middle(page);
  await page.getByRole('textbox', { name: 'Search effects' }).fill('crack');
  await expect(page.getByRole('button', { name: 'Blur', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Gradient map', exact: true }).last().click();
  await page.getByRole('textbox', { name: 'Search effects' }).fill('raised');
  await page.getByRole('button', { name: 'Relief', exact: true }).last().click();
  const dial = page.getByRole('slider', { name: 'Light from' });
  await dial.focus();
  await page.keyboard.press('PageUp');
  await expect(dial).toHaveAttribute('aria-valuenow', '0');
  await settled(page);
  expect(apart(await middle(page), before)).toBeGreaterThan(0.5);
  await page.getByRole('button', { name: 'Relief: move up' }).click();
  await page.getByRole('combobox', { name: 'Mode of relief' }).selectOption('overlay');
  const copy = page.getByRole('combobox', { name: 'Copy relief to another coat' });
  await copy.selectOption({ index: 1 });
  await expect(page.getByText(/^Relief is on “.*” too\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Remove relief' }).click();
  await facet(page, 'Tone');
  await page.getByRole('button', { name: 'Remove gradient map', exact: true }).click();
  await page.getByRole('button', { name: 'Undo: Remove gradient map' }).click();
  await expect(page.getByRole('button', { name: 'Remove gradient map', exact: true })).toBeVisible();
  await page.getByRole('switch', { name: 'On', exact: true }).last().click();
  await toRail(page);
});

test('a tint is taken from the picture under a loupe, and from the colours found in the photo', { tag: '@wide' }, async ({ page, hasTouch }) => {
  await openSample(page, 'The old keeper');
  await facet(page, 'Tone');
  await page.getByRole('button', { name: 'Tint', exact: true }).last().click();
  await settled(page);
  await expect.poll(() => page.getByRole('button', { name: /^Colour: #[0-9a-f]{6} of the photo$/ }).count()).toBeGreaterThan(3);
  await page
    .getByRole('button', { name: /^Colour: #[0-9a-f]{6} of the photo$/ })
    .first()
    .click();
  const offered = await page.getByRole('textbox', { name: 'Colour, typed' }).inputValue();
  expect(offered).toMatch(/^#[0-9a-f]{6}$/);
  await page.getByRole('button', { name: 'Pick colour on the picture' }).click();
  await expect(page.getByText('Tap the colour for “colour”')).toBeVisible();
  const box = (await page.getByTestId('picture').boundingBox())!;
  // The jersey lies low in the middle.
  const place = { x: box.x + box.width / 2, y: box.y + box.height * 0.9 };
  if (hasTouch) await page.touchscreen.tap(place.x, place.y);
  else await page.mouse.click(place.x, place.y);
  const picked = page.getByRole('textbox', { name: 'Colour, typed' });
  await expect(picked).not.toHaveValue(offered);
  const hex = await picked.inputValue();
  expect(parseInt(hex.slice(5, 7), 16)).toBeGreaterThan(parseInt(hex.slice(1, 3), 16));
});

test('a gradient’s ends lie on the picture, and its stops in the panel', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await page.getByRole('button', { name: 'Add a material' }).click();
  await page.getByRole('button', { name: 'Other coats' }).click();
  await page.getByRole('button', { name: 'Gradient' }).click();
  await settled(page);
  const before = await middle(page);
  const end = page.getByRole('button', { name: 'Last end of the gradient' });
  await end.focus();
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowUp');
  await settled(page);
  expect(apart(await middle(page), before)).toBeGreaterThan(0.5);
  await page.getByRole('button', { name: 'Add a stop' }).click();
  await expect(page.getByRole('button', { name: 'Stop 2, at 50 %' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop 2, at 50 %' }).click();
  await page.getByRole('button', { name: 'Remove stop 2' }).click();
  await expect(page.getByRole('button', { name: 'Stop 2, at 100 %' })).toBeVisible();
});

test('relief is lit as the photo’s face is, in one tap; without a face it says so and nothing changes', async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Craquelure');
  const addRelief = async () => {
    await facet(page, 'Surface');
    await page.getByRole('textbox', { name: 'Search effects' }).fill('raised');
    await page.getByRole('button', { name: 'Relief', exact: true }).last().click();
  };
  await addRelief();
  const dial = page.getByRole('slider', { name: 'Light from' }).last();
  await page.getByRole('button', { name: 'Match the photo’s light' }).last().click();
  // The keeper is lit from his right, which is the left of the picture, and from above.
  await expect(dial).not.toHaveAttribute('aria-valuenow', '315', { timeout: 60_000 });
  const from = Number(await dial.getAttribute('aria-valuenow'));
  expect(from).toBeGreaterThan(270);
  expect(from).toBeLessThan(345);
  await expect(page.getByText(/^The light on the face comes from \d+°, \d+° high\.$/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Undo: Relief: match the photo’s light' })).toBeEnabled();

  await openPhoto(page, 'demo/photos/lamp-and-lemons.jpg');
  await lay(page, 'Craquelure');
  await addRelief();
  await page.getByRole('button', { name: 'Match the photo’s light' }).last().click();
  await expect(page.getByText('No face was found to read the light from. Set it with the dial.')).toBeVisible({ timeout: 60_000 });
  await expect(dial).toHaveAttribute('aria-valuenow', '315');
});
