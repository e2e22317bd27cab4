import { expect, openSample, test } from './fixtures';

/** What the facet's sliders say, in the shown units. */
async function figures(page: import('@playwright/test').Page) {
  const text = async (name: string) => Number(await page.getByRole('textbox', { name: `${name}, typed`, exact: true }).inputValue());
  return { scale: await text('Scale'), turn: await text('Turn'), x: await text('Across'), stretch: await text('Stretch across') };
}

test('lay a material by its handles, in perspective, by keys, and see through it meanwhile', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await page.getByRole('tab', { name: 'Place', exact: true }).click();
  const before = await figures(page);
  const drag = async (grip: string, dx: number, dy: number, hold = false) => {
    const box = (await page.getByTestId(`lay-${grip}`).boundingBox())!;
    expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44);
    await page.mouse.move(box.x + 22, box.y + 22);
    await page.mouse.down();
    await page.mouse.move(box.x + 22 + dx, box.y + 22 + dy, { steps: 4 });
    if (!hold) await page.mouse.up();
  };
  await drag('scale-2', -30, -30);
  expect((await figures(page)).scale).toBeLessThan(before.scale - 3);
  await drag('turn', 60, 10);
  expect((await figures(page)).turn).toBeGreaterThan(5);
  await drag('across', -40, 0);
  expect((await figures(page)).stretch).toBeLessThan(100);
  await drag('middle', 40, 0);
  const { x } = await figures(page);
  expect(x).toBeGreaterThan(0);

  await page.getByTestId('picture').focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await figures(page)).x).toBeGreaterThan(x);

  await page.getByRole('switch', { name: 'Four corners' }).click();
  await page.getByTestId('lay-corner-1').focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('button', { name: 'Reset perspective', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Reset perspective', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Reset perspective', exact: true })).toBeHidden();
  // Six things were done; each is undone by itself.
  for (let i = 0; i < 7; i++) await page.keyboard.press('Control+z');
  expect(await figures(page)).toEqual(before);
});

test('two fingers scale and turn the material, one moves it', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await page.getByRole('tab', { name: 'Place', exact: true }).click();
  await expect(page.getByTestId('stroke-line')).toContainText('two fingers scale and turn it');
  const before = await figures(page);
  const box = (await page.getByTestId('picture').boundingBox())!;
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const touch = await page.context().newCDPSession(page);
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: [number, number][]) =>
    touch.send('Input.dispatchTouchEvent', { type, touchPoints: points.map(([x, y], id) => ({ x, y, id })) });
  await send('touchStart', [[cx - 50, cy - 60]]);
  await send('touchStart', [
    [cx - 50, cy - 60],
    [cx + 50, cy - 60],
  ]);
  for (let i = 1; i <= 5; i++)
    await send('touchMove', [
      [cx - 50 - 6 * i, cy - 60 - 5 * i],
      [cx + 50 + 6 * i, cy - 60 + 5 * i],
    ]);
  await send('touchEnd', []);
  const after = await figures(page);
  expect(after.scale).toBeGreaterThan(before.scale * 1.4);
  expect(after.turn).toBeGreaterThan(8);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await figures(page)).toEqual(before);
});
