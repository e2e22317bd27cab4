import { AxeBuilder } from '@axe-core/playwright';
import { drawn, expect, facet, openSample, portrait, settled, test, toRail, unfold } from './fixtures';

async function serious(page: import('@playwright/test').Page) {
  const builder = new AxeBuilder({ page });
  // The dark theme differs in its colours alone.
  const dark = await page.evaluate(() => matchMedia('(prefers-color-scheme: dark)').matches);
  const { violations } = await (dark ? builder.withRules(['color-contrast']) : builder).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`);
}

/** Controls whose outline is under 3:1 against what lies around it (WCAG 2.2, 1.4.11); those that show a picture are known by it. */
const faint = (page: import('@playwright/test').Page) =>
  page.evaluate(() => {
    const rgb = (text: string) => (text.match(/[\d.]+/g) ?? []).map(Number);
    const luminance = ([r, g, b]: number[]) => {
      const [x, y, z] = [r, g, b].map((v) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4));
      return 0.2126 * x + 0.7152 * y + 0.0722 * z;
    };
    const around = (element: Element | null): number[] => {
      for (let e = element; e; e = e.parentElement) {
        const colour = rgb(getComputedStyle(e).backgroundColor);
        if (colour.length === 3 || colour[3] === 1) return colour;
      }
      return [255, 255, 255];
    };
    const bad: string[] = [];
    for (const control of document.querySelectorAll<HTMLElement>('button, [role="button"], [role="radio"], input, select, textarea')) {
      if (
        control.offsetParent === null ||
        control.querySelector('img, canvas') ||
        // Shown by something else that lies under it.
        getComputedStyle(control).opacity === '0' ||
        control.matches('[disabled], [aria-disabled="true"], [type="range"]')
      )
        continue;
      // Paper draws the outline of a button on what holds it.
      const held = control.matches('[role="button"], button') ? control.parentElement : null;
      for (const e of [control, held]) {
        if (!e) continue;
        const style = getComputedStyle(e);
        const colour = rgb(style.borderTopColor);
        if (style.borderTopStyle === 'none' || parseFloat(style.borderTopWidth) === 0 || parseFloat(style.borderLeftWidth) === 0 || colour[3] === 0)
          continue;
        const [a, b] = [luminance(colour), luminance(around(e.parentElement))].sort((x, y) => y - x);
        const ratio = (a + 0.05) / (b + 0.05);
        if (ratio < 3) bad.push(`${control.getAttribute('aria-label') ?? control.textContent}: ${ratio.toFixed(2)}`);
      }
    }
    return bad;
  });

/** Every facet of the card that stands open. */
async function facetsAreFine(page: import('@playwright/test').Page, names: string[]) {
  for (const name of names) {
    await facet(page, name);
    await settled(page);
    expect(await serious(page), name).toEqual([]);
    expect(await faint(page), name).toEqual([]);
  }
}

for (const theme of ['light', 'dark'] as const) {
  test.describe(`axe finds nothing serious, ${theme}`, () => {
    test.beforeEach(({ page }) => page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' }));
    test('on the screens', async ({ page }) => {
      await page.goto('/');
      await expect(page.getByRole('button', { name: 'Open a photo' })).toBeVisible();
      expect(await serious(page)).toEqual([]);
      expect(await faint(page)).toEqual([]);
      await page.goto('/materials');
      await expect(page.getByRole('button', { name: 'Brick wall' })).toBeVisible();
      expect(await serious(page)).toEqual([]);
      await page.goto('/help');
      await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
      expect(await serious(page), 'help').toEqual([]);
      await openSample(page, 'The old keeper');
      expect(await serious(page)).toEqual([]);
      await facet(page, 'Blend');
      await page.getByRole('button', { name: 'Compare all modes' }).click();
      await expect(page.getByRole('group', { name: 'Contact sheet' })).toBeVisible();
      expect(await serious(page), 'contact sheet').toEqual([]);
      await toRail(page);
      await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
      expect(await serious(page), 'adding').toEqual([]);
      expect(await faint(page), 'adding').toEqual([]);
      await toRail(page);
      await page.getByRole('button', { name: 'Export', exact: true }).click();
      await expect(page.getByRole('button', { name: 'Save the picture' })).toBeVisible();
      expect(await serious(page)).toEqual([]);
      await page.getByRole('button', { name: 'Back to the bench' }).click();
      await page.getByRole('button', { name: 'Compare', exact: true }).click();
      for (const way of ['Side by side', 'Wipe', 'Difference']) {
        await page.getByRole('radio', { name: way }).click();
        expect(await serious(page), way).toEqual([]);
        expect(await faint(page), way).toEqual([]);
      }
      await page.goto('/batch');
      await expect(page.getByRole('button', { name: 'Choose photos' })).toBeVisible();
      expect(await serious(page), 'batch').toEqual([]);
      expect(await faint(page), 'batch').toEqual([]);
      await page.goto('/');
      await unfold(page, 'Space and backup');
      await expect(page.getByRole('button', { name: 'Back up everything' })).toBeVisible();
      expect(await serious(page), 'space and backup').toEqual([]);
    });
    test("on a coat's card", { tag: '@wide' }, async ({ page }) => {
      await openSample(page, 'The old keeper');
      await facetsAreFine(page, ['Blend', 'Material', 'Place', 'Tone', 'Surface', 'Mask', 'Guards', 'More']);
    });
    test("on the photo's card", { tag: '@phone' }, async ({ page }) => {
      await openSample(page, 'The old keeper');
      await toRail(page);
      await page.getByTestId('card-photo').click();
      await facetsAreFine(page, ['Crop', 'Spots', 'Light', 'Colour', 'Detail', 'Presets']);
    });
  });
}

test('the whole first journey by keyboard alone: opened, guarded, a paper laid and eased, exported', { tag: '@wide' }, async ({ page }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  const press = async (role: 'button' | 'slider', name: RegExp | string, key = 'Enter') => {
    const target = page.getByRole(role, { name, exact: typeof name === 'string' }).first();
    for (let i = 0; i < 150; i++) {
      if (await target.evaluate((n) => n === document.activeElement).catch(() => false)) return page.keyboard.press(key);
      await page.keyboard.press('Tab');
    }
    throw new Error(`Tab never reached ${name}`);
  };
  await page.goto('/');
  const chooser = page.waitForEvent('filechooser');
  await press('button', 'Open a photo');
  await (await chooser).setFiles(await portrait());
  await drawn(page);
  // Tabs are one stop: arrows go along them.
  const tab = page.getByRole('tab', { selected: true });
  for (let i = 0; i < 60 && !(await tab.evaluate((n) => n === document.activeElement)); i++) await page.keyboard.press('Tab');
  for (let i = 0; i < 8 && (await tab.textContent()) !== 'Guards'; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Guards' })).toBeFocused();
  await press('button', 'Find faces and people');
  await expect(page.getByRole('list', { name: 'Regions' })).toBeVisible({ timeout: 60_000 });
  await press('button', 'Add a material');
  await press('button', 'Aged, stained paper');
  await settled(page);
  // Chosen once more, what is tried is kept.
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('card-0')).toHaveAccessibleName(/stained paper/i);
  const before = await page.getByTestId('card-0').getAttribute('aria-label');
  await press('slider', 'Strength', 'ArrowLeft');
  await expect(page.getByTestId('card-0')).not.toHaveAccessibleName(before ?? '');
  await press('button', 'Export');
  const download = page.waitForEvent('download');
  await press('button', 'Save the picture');
  expect((await download).suggestedFilename()).toMatch(/\.jpg$/);
});
