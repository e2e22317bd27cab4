import { AxeBuilder } from '@axe-core/playwright';
import { expect, facet, openSample, settled, test, toRail } from './fixtures';

async function serious(page: import('@playwright/test').Page) {
  const builder = new AxeBuilder({ page });
  // The dark theme differs in its colours alone.
  const dark = await page.evaluate(() => matchMedia('(prefers-color-scheme: dark)').matches);
  const { violations } = await (dark ? builder.withRules(['color-contrast']) : builder).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`);
}

/** Every facet of the card that stands open. */
async function facetsAreFine(page: import('@playwright/test').Page, names: string[]) {
  for (const name of names) {
    await facet(page, name);
    await settled(page);
    expect(await serious(page), name).toEqual([]);
  }
}

for (const theme of ['light', 'dark'] as const) {
  test.describe(`axe finds nothing serious, ${theme}`, () => {
    test.beforeEach(({ page }) => page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' }));
    test('on the screens', async ({ page }) => {
      await page.goto('/');
      await expect(page.getByRole('button', { name: 'Open a photo' })).toBeVisible();
      expect(await serious(page)).toEqual([]);
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
      await toRail(page);
      await page.getByRole('button', { name: 'Export', exact: true }).click();
      await expect(page.getByRole('button', { name: 'Save the picture' })).toBeVisible();
      expect(await serious(page)).toEqual([]);
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
