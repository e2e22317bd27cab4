import { expect, facet, openSample, settled, test } from './fixtures';

test(
  'ten materials and every mode are tried on a portrait in under a minute, by finger and by keys',
  { tag: '@phone' },
  async ({ page, hasTouch }) => {
    await openSample(page, 'The old keeper');
    await facet(page, 'Blend');
    await settled(page);
    const start = Date.now();
    await page.getByRole('button', { name: 'Compare all modes' }).click();
    const cells = page.locator('[data-cell] > button:first-child');
    const drawn = (count: number) => expect.poll(() => page.locator('[data-cell][data-drawn]').count()).toBeGreaterThanOrEqual(count);
    /** Tries the first so many cells, one after another; the bench says which is tried. */
    const attempt = async (count: number) => {
      await drawn(count);
      await cells.first().focus();
      for (let i = 0; i < count; i++) {
        const cell = cells.nth(i);
        if (hasTouch) {
          if (!(await cell.textContent())?.startsWith('Use ')) await cell.tap();
        } else if (i === 0) {
          // Focus that a key has moved is what tries.
          await page.keyboard.press('Tab');
          await page.keyboard.press('Shift+Tab');
        } else {
          await page.keyboard.press('Tab');
          await page.keyboard.press('Tab');
        }
        await expect(cell).toContainText('Use ');
      }
    };
    await attempt(26);
    await page.getByRole('radio', { name: 'Materials' }).click();
    await page.getByRole('radio', { name: 'Paper' }).click();
    await attempt(10);
    expect(Date.now() - start).toBeLessThan(60_000);

    // Before, while it is held; then the last one is taken as one step.
    const before = page.getByRole('button', { name: 'Hold to see the photo', exact: true });
    await before.scrollIntoViewIfNeeded();
    await expect(before).toBeEnabled();
    const last = cells.nth(9);
    if (hasTouch) await last.tap();
    else await last.press('Enter');
    await expect(last).toHaveAttribute('aria-pressed', 'true');
    await expect(page.getByRole('button', { name: /^Undo: Use / })).toBeVisible();
  },
);
