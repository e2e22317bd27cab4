import { apart, arm, drawn, expect, facet, lay, look, openPhoto, openSample, paint, portrait, settled, test, toRail, type } from './fixtures';

test('coats: above the chosen one, exchanged, duplicated, moved, hidden, named, removed', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Cold-press paper');
  await lay(page, 'Craquelure');
  await toRail(page);
  await page.getByTestId('card-0').click();
  await lay(page, 'Brick wall');
  await toRail(page);
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/Brick wall · soft light/);
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/Craquelure/);

  await facet(page, 'Tone');
  await type(page, 'Contrast', '40');
  await facet(page, 'Material');
  await page.getByRole('button', { name: 'Weathered boards', exact: true }).click();
  await settled(page);
  await toRail(page);
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/Weathered boards · soft light/);
  await facet(page, 'Tone');
  await expect(page.getByRole('textbox', { name: 'Contrast, typed' })).toHaveValue('40');

  await facet(page, 'More');
  await page.getByRole('button', { name: 'To front' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Harbour boards');
  await page.getByRole('textbox', { name: 'Name' }).press('Enter');
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await page.getByRole('switch', { name: 'Shown' }).click();
  await toRail(page);
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/Harbour boards · soft light, 75 %$/);
  await expect(page.getByTestId('card-3')).toHaveAccessibleName(/Harbour boards · soft light, 75 %, hidden/);
  await facet(page, 'More');
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await toRail(page);
  await expect(page.getByTestId('card-3')).toHaveCount(0);
});

test('a mode shows while it is pointed at, and goes when it is left', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await facet(page, 'Blend');
  const overlay = await look(page, 0.2, 0.2);
  await page.getByRole('group', { name: 'Suggested' }).getByRole('button', { name: 'Multiply' }).hover();
  await settled(page);
  expect(apart(await look(page, 0.2, 0.2), overlay)).toBeGreaterThan(8);
  await page.mouse.move(300, 300);
  await settled(page);
  expect(apart(await look(page, 0.2, 0.2), overlay)).toBeLessThan(1);
});

test('an ellipse by its handles, and a straight line that begins outside the picture', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Aged, stained paper');
  await facet(page, 'Mask');
  const add = page.getByRole('button', { name: 'Add an ellipse' });
  await add.scrollIntoViewIfNeeded();
  await add.click();
  await settled(page);
  const grip = page.getByTestId('ellipse-centre');
  const box = (await grip.boundingBox())!;
  expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44);
  const before = await page.getByTestId('ellipse-across').boundingBox();
  await page.mouse.move(before!.x + 22, before!.y + 22);
  await page.mouse.down();
  await page.mouse.move(before!.x + 40, before!.y + 22, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  expect((await page.getByTestId('ellipse-across').boundingBox())!.x).toBeGreaterThan(before!.x + 12);
  await expect(page.getByRole('button', { name: 'Undo: Move the ellipse' })).toBeEnabled();
  await page.getByRole('radio', { name: 'Mask alone' }).click();
  await settled(page);
  expect((await look(page, 0.5, 0.5))[0]).toBeLessThan(10);

  await page.getByRole('button', { name: 'Brush settings' }).click();
  await page.getByRole('switch', { name: 'Lines from tap to tap' }).click();
  await type(page, 'Brush strength', '100');
  await settled(page);
  await paint(page, [
    [-0.01, 0.97],
    [0.9, 0.97],
  ]);
  await settled(page);
  expect((await look(page, 0.3, 0.97))[0]).toBeLessThan(150);
});

test('the view: wheel, fit, one to one', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  const width = async () => (await page.locator('[data-testid="picture"] canvas').boundingBox())!.width;
  const fitted = await width();
  const place = (await page.getByTestId('picture').boundingBox())!;
  await page.mouse.move(place.x + place.width / 2, place.y + place.height / 2);
  await page.mouse.wheel(0, -600);
  await settled(page);
  expect(await width()).toBeGreaterThan(fitted);
  await page.keyboard.press('f');
  await settled(page);
  expect(Math.abs((await width()) - fitted)).toBeLessThan(2);
  await page.keyboard.press('a');
  await settled(page);
  await expect(page.getByTestId('picture')).toHaveAccessibleName(/100 %/);
});

test('by keyboard alone: a piece opened, a material laid, eased, moved and undone', { tag: '@wide' }, async ({ page }, info) => {
  await page.goto('/');
  const press = async (name: RegExp | string, key = 'Enter') => {
    const target = page.getByRole('button', { name }).first();
    for (let i = 0; i < 120; i++) {
      if (await target.evaluate((n) => n === document.activeElement).catch(() => false)) return page.keyboard.press(key);
      await page.keyboard.press('Tab');
    }
    throw new Error(`Tab never reached ${name}`);
  };
  await press('Open the sample The old keeper');
  await drawn(page);
  await press(/^Add a material$/);
  await press(/^Artist’s canvas$/);
  // Chosen once more, what is tried is kept.
  await page.keyboard.press('Enter');
  await settled(page);
  if (info.project.name === 'phone') await press('Done');
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/canvas · multiply, 90 %/);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('4');
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/40 %/);
  await page.getByTestId('card-2').focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/canvas · multiply, 40 %/);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: Move the coat')).toBeVisible();
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/canvas/);
  await page.keyboard.press('Control+Shift+Z');
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/canvas/);
  await page.keyboard.press('?');
  await expect(page.getByText('Brush smaller, larger')).toBeVisible();
});

test('by touch: two fingers zoom and pan, one paints', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  const cdp = await page.context().newCDPSession(page);
  const touch = (kind: 'touchStart' | 'touchMove' | 'touchEnd', ...points: [number, number][]) =>
    cdp.send('Input.dispatchTouchEvent', { type: kind, touchPoints: points.map(([x, y], id) => ({ x, y, id })) });
  const width = async () => (await page.locator('[data-testid="picture"] canvas').boundingBox())!.width;
  const before = await width();
  await touch('touchStart', [150, 300], [240, 300]);
  for (let i = 1; i <= 6; i++) await touch('touchMove', [150 - 8 * i, 300], [240 + 8 * i, 300]);
  await touch('touchEnd');
  await settled(page);
  await expect(page.getByTestId('picture')).not.toHaveAccessibleName(/ 31 %$/);
  expect(await width()).toBeGreaterThanOrEqual(before);
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await facet(page, 'Mask');
  await arm(page);
  await page.getByRole('radio', { name: 'Mask alone' }).click();
  await settled(page);
  const bare = await look(page, 0.2, 0.2);
  const box = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
  const at = (x: number, y: number): [number, number] => [box.x + box.width * x, box.y + box.height * y];
  await touch('touchStart', at(0.15, 0.2));
  for (let i = 1; i <= 5; i++) await touch('touchMove', at(0.15 + 0.02 * i, 0.2));
  await touch('touchEnd');
  await settled(page);
  expect((await look(page, 0.2, 0.2))[0]).toBeLessThan(bare[0] - 20);
  await expect(page.getByRole('button', { name: 'Undo: Erase' })).toBeEnabled();
});
