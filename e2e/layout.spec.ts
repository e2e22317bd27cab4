import { expect, facet, openSample, settled, test, toRail, type Page } from './fixtures';

/** Sizes at which the page is measured: phones, a tablet, wide screens, a phone on its side, and 1280 × 800 at 200 %. */
const sizes = [
  [360, 740],
  [390, 844],
  [768, 1024],
  [1024, 768],
  [1280, 800],
  [844, 390],
  [640, 400],
] as const;

/** Buttons whose text is cut or takes a second line; cards of the rail and pictures with captions are meant to. */
const cut = (page: Page) =>
  page.evaluate(() => {
    const bad: string[] = [];
    for (const button of document.querySelectorAll<HTMLElement>('button, [role="button"]')) {
      if (button.offsetParent === null || button.closest('[aria-label="The coats, bottom to top"], [role="group"][aria-label="Looks"]')) continue;
      const text = button.textContent?.trim();
      if (!text || button.querySelector('img, canvas')) continue;
      const walker = document.createTreeWalker(button, NodeFilter.SHOW_TEXT);
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const range = document.createRange();
        range.selectNodeContents(node);
        const tops = new Set([...range.getClientRects()].map((r) => Math.round(r.top)));
        if (tops.size > 1) bad.push(`wrapped: ${text}`);
      }
      if (button.scrollWidth > button.clientWidth + 1) bad.push(`cut: ${text}`);
    }
    return bad;
  });

/** Rows of controls that lie wholly in view under the title of the panel or sheet. */
const rowsInView = (page: Page) =>
  page.evaluate(() => {
    const help = document.querySelector('[data-testid="help-line"]')!.getBoundingClientRect();
    const rows = [...document.querySelectorAll('.dx-row, [role="group"][aria-label="Suggested"], [role="radiogroup"]')].filter((e) => {
      const box = e.getBoundingClientRect();
      return box.height > 0 && box.bottom <= help.top + 1 && box.top >= 0;
    });
    return rows.length;
  });

for (const [width, height] of sizes) {
  test(`at ${width} × ${height}: tabs in one row, no text cut in a button, the picture large enough`, { tag: '@wide' }, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await openSample(page, 'The old keeper');
    await settled(page);
    const stage = (await page.getByTestId('picture').boundingBox())!;
    const beside = width >= 1024 || height < 500;
    if (width === 1280) {
      const picture = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
      expect(picture.height).toBeGreaterThanOrEqual(620);
      expect(height - stage.y - stage.height).toBeLessThanOrEqual(110);
    }
    if (beside) expect(stage.width).toBeGreaterThanOrEqual(width / 2 - 12);
    // At rest a portrait phone gives the picture more than half of its height.
    else expect(stage.height / height).toBeGreaterThan(0.55);
    for (const [tab, card] of [
      ['Blend', 'card-1'],
      ['Tone', 'card-1'],
      ['Guards', 'card-1'],
      ['Light', 'card-photo'],
      ['Colour', 'card-photo'],
    ]) {
      await toRail(page);
      await page.getByTestId(card).click();
      await facet(page, tab);
      await page.waitForTimeout(300);
      const tabs = await page
        .getByRole('tab')
        .evaluateAll((all) => all.map((e) => e.getBoundingClientRect()).map(({ top, left, right }) => ({ top, left, right })));
      expect(new Set(tabs.map((t) => Math.round(t.top))).size, tab).toBe(1);
      expect(Math.max(...tabs.map((t) => t.right)), tab).toBeLessThanOrEqual(width + 1);
      expect(await cut(page), tab).toEqual([]);
      if (width === 390 && tab === 'Blend') expect(await rowsInView(page)).toBeGreaterThanOrEqual(5);
    }
  });
}

test('the panel of a wide screen shows at least fourteen controls, and is made wider by keys', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  const count = () =>
    page.evaluate(() => {
      const help = document.querySelector('[data-testid="help-line"]')!.getBoundingClientRect();
      const controls = [
        ...document.querySelectorAll('input[type="range"], [role="switch"], [role="radio"], [role="slider"]:not(input), button:not([role])'),
      ];
      return controls.filter((e) => {
        const box = e.getBoundingClientRect();
        return box.left > help.left && box.height > 0 && box.bottom <= help.top && box.top > 90;
      }).length;
    });
  await facet(page, 'Blend');
  expect(await count()).toBeGreaterThanOrEqual(14);
  await page.getByTestId('card-photo').click();
  await facet(page, 'Light');
  // Its sliders, and the folds under them; the scope takes the rest.
  expect(await count()).toBeGreaterThanOrEqual(10);
  const edge = page.getByRole('separator', { name: 'Width of the panel' });
  await edge.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowLeft');
  await expect(edge).toHaveAttribute('aria-valuenow', '420');
  await page.reload();
  await settled(page);
  await expect(edge).toHaveAttribute('aria-valuenow', '420');
});

test('a picture pasted on the open piece is asked about, and laid as a material', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 64;
    canvas.getContext('2d')!.fillRect(8, 8, 20, 20);
    const blob = await new Promise<Blob>((resolve) => canvas.toBlob((b) => resolve(b as Blob)));
    const data = new DataTransfer();
    data.items.add(new File([blob], 'ink.png', { type: 'image/png' }));
    window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data }));
  });
  const dialog = page.getByRole('dialog', { name: 'Use “ink.png”' });
  await expect(dialog).toBeVisible();
  // Named, the keyboard kept inside, closed by Esc.
  expect(await dialog.evaluate((e) => e.contains(document.activeElement))).toBe(true);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Tab');
  expect(await dialog.evaluate((e) => e.contains(document.activeElement))).toBe(true);
  await dialog.getByRole('button', { name: 'Add as a material' }).click();
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/ink · /);
});

test('the controls of the export stay where they are when its picture comes', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  await page.evaluate(() => {
    const tops: Set<number> = Object.assign(window, { tops: new Set<number>() }).tops;
    const watch = () => {
      const place = document.querySelector('[role="radiogroup"][aria-label="Format"]')?.getBoundingClientRect();
      if (place?.height) tops.add(place.top);
      requestAnimationFrame(watch);
    };
    watch();
  });
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await expect(page.getByRole('img', { name: 'The old keeper' })).toBeVisible();
  await page.waitForTimeout(300);
  expect(await page.evaluate(() => [...(window as unknown as { tops: Set<number> }).tops])).toHaveLength(1);
});
