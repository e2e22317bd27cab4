import { expect, facet, lay, look, openPhoto, portrait, settled, test, toRail, type } from './fixtures';

const add = async (page: import('@playwright/test').Page, kind: string) => {
  const pick = page.getByRole('combobox', { name: 'Add to the mask' });
  await pick.scrollIntoViewIfNeeded();
  await pick.selectOption({ label: kind });
  await settled(page);
};

test('parts are added, joined, put in order, switched off and removed', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await facet(page, 'Mask');
  await page.getByRole('radio', { name: 'Hidden' }).click();
  await page.getByRole('radio', { name: 'Mask alone' }).click();
  await settled(page);
  expect((await look(page, 0.5, 0.5))[0]).toBeLessThan(3);
  await add(page, 'Straight gradient');
  await type(page, 'Most', '50');
  await settled(page);
  expect((await look(page, 0.5, 0.95))[0]).toBeGreaterThan(120);
  expect((await look(page, 0.5, 0.95))[0]).toBeLessThan(136);
  expect((await look(page, 0.5, 0.05))[0]).toBeLessThan(3);

  await add(page, 'Ellipse or box');
  await type(page, 'Shape', '100');
  await settled(page);
  expect((await look(page, 0.5, 0.5))[0]).toBeGreaterThan(250);
  // The last part is opened by itself; taken away instead, it is dark where it lies.
  await page.getByRole('radio', { name: 'Subtract', exact: true }).last().click();
  await settled(page);
  expect((await look(page, 0.5, 0.55))[0]).toBeLessThan(10);
  await page.getByRole('button', { name: 'Ellipse or box: move up' }).click();
  await settled(page);
  expect((await look(page, 0.5, 0.6))[0]).toBeGreaterThan(60);

  const fold = page.getByRole('button', { name: /^Ellipse or box/, expanded: false });
  if (await fold.count()) await fold.first().click();
  await page.getByRole('button', { name: 'Remove ellipse or box' }).click();
  await add(page, 'Lights and darks');
  await add(page, 'Fine detail');
  await add(page, 'Material as mask');
  await settled(page);
  await page.getByRole('button', { name: 'Clear the mask' }).click();
  await settled(page);
  expect((await look(page, 0.5, 0.95))[0]).toBeLessThan(3);
});

test('a colour is picked for the mask, and the whole of it eased and turned', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await facet(page, 'Mask');
  await page.getByRole('radio', { name: 'Hidden' }).click();
  await add(page, 'Picked colours');
  await page.getByRole('button', { name: 'Pick a colour' }).click();
  // The keeper's cap.
  const box = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.53, box.y + box.height * 0.17);
  await expect(page.getByRole('button', { name: /^Leave out #/ })).toHaveCount(1);
  await type(page, 'Tolerance', '40');
  await page.getByRole('radio', { name: 'Mask alone' }).click();
  await settled(page);
  expect((await look(page, 0.53, 0.17, 12))[0]).toBeGreaterThan(120);
  expect((await look(page, 0.1, 0.1))[0]).toBeLessThan(40);
  const whole = page.getByRole('button', { name: /^Whole mask/ });
  await whole.scrollIntoViewIfNeeded();
  await whole.click();
  await page.getByRole('switch', { name: 'Invert' }).last().click();
  await settled(page);
  expect((await look(page, 0.1, 0.1))[0]).toBeGreaterThan(210);
});

test('a mask is copied to another coat, and shared with one', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await lay(page, 'Craquelure');
  await facet(page, 'Mask');
  await page.getByRole('button', { name: 'Add an ellipse' }).click();
  const whole = page.getByRole('button', { name: /^Whole mask/ });
  await whole.scrollIntoViewIfNeeded();
  await whole.click();
  await page.getByRole('combobox', { name: 'Copy the mask to another coat' }).selectOption({ index: 1 });
  await expect(page.getByText(/The mask is on “Raw linen/)).toBeVisible();
  await toRail(page);
  await page.getByTestId('card-0').click();
  await facet(page, 'Mask');
  await expect(page.getByRole('button', { name: 'Remove ellipse or box' })).toBeVisible();
  const again = page.getByRole('button', { name: /^Whole mask/ });
  await again.scrollIntoViewIfNeeded();
  await again.click();
  await page.getByRole('combobox', { name: 'Use the mask of another coat' }).selectOption({ index: 1 });
  await page.getByRole('radio', { name: 'Mask alone' }).click();
  await settled(page);
  expect((await look(page, 0.5, 0.5))[0]).toBeLessThan(30);
  expect((await look(page, 0.05, 0.05))[0]).toBeGreaterThan(240);
});
