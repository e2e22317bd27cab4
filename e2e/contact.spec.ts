import { expect, facet, openSample, settled, test, toRail } from './fixtures';

/** Pixels of the picture as it stands, to tell one state from another. */
const seen = (page: import('@playwright/test').Page) =>
  page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="picture"] canvas')!;
    const small = document.createElement('canvas');
    small.width = small.height = 16;
    small.getContext('2d')!.drawImage(canvas, 0, 0, 16, 16);
    return [...small.getContext('2d')!.getImageData(0, 0, 16, 16).data];
  });
/** Mean difference in levels; what is drawn again may differ by the rounding of its caches. */
const apart = (a: number[], b: number[]) => a.reduce((sum, v, i) => sum + Math.abs(v - b[i]), 0) / a.length;
const drawn = (page: import('@playwright/test').Page, count: number) =>
  expect.poll(() => page.locator('[data-cell][data-drawn]').count(), { timeout: 60_000 }).toBeGreaterThanOrEqual(count);

test('every mode side by side: one tried, one taken as one step, two wiped', { tag: '@wide' }, async ({ page, hasTouch }) => {
  await openSample(page, 'The old keeper');
  await facet(page, 'Blend');
  await settled(page);
  const before = await seen(page);
  await page.getByRole('button', { name: 'Compare all modes' }).click();
  await drawn(page, 26);
  // No two modes of this material look the same but linear dodge and plus lighter may.
  const screen = page.locator('[data-cell="screen"] button').first();
  await screen.scrollIntoViewIfNeeded();
  if (hasTouch) await screen.tap();
  else await screen.hover();
  await expect(screen).toContainText('Use Screen');
  await settled(page);
  expect(apart(await seen(page), before)).toBeGreaterThan(3);
  // Nothing has been kept yet.
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeVisible();
  if (hasTouch) await screen.tap();
  else await screen.click();
  await expect(page.locator('[data-cell="screen"] button').first()).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Undo: Use screen' }).click();
  await page.mouse.move(5, 400);
  await settled(page);
  expect(apart(await seen(page), before)).toBeLessThan(0.5);
  await page.getByRole('button', { name: 'Mark Screen' }).click();
  await page.getByRole('button', { name: 'Mark Overlay' }).click();
  const edge = page.getByRole('slider', { name: 'Edge between Screen and Overlay' });
  await edge.focus();
  await page.keyboard.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', '55');
  await page.getByRole('button', { name: 'Use Overlay', exact: true }).first().click();
  await settled(page);
  expect(apart(await seen(page), before)).toBeGreaterThan(3);
});

test('materials of a family and strengths, with all else kept', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await facet(page, 'Blend');
  await page.getByRole('button', { name: 'Compare all modes' }).click();
  await page.getByRole('radio', { name: 'Materials' }).click();
  await page.getByRole('radio', { name: 'Canvas and cloth' }).click();
  await drawn(page, 2);
  await page.locator('[data-cell="cloth.linen"] button').first().focus();
  const linen = page.locator('[data-cell="cloth.linen"] button').first();
  await linen.click();
  if ((await linen.textContent())?.startsWith('Take')) await linen.click();
  await expect(linen).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('radio', { name: 'Strengths' }).click();
  await drawn(page, 10);
  await page.getByRole('button', { name: 'Back to the sliders' }).click();
  await toRail(page);
});
