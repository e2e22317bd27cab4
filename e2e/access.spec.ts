import { AxeBuilder } from '@axe-core/playwright';
import { expect, facet, openSample, settled, test, toRail } from './fixtures';

async function serious(page: import('@playwright/test').Page) {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`);
}

for (const theme of ['light', 'dark'] as const) {
  test(`axe finds nothing serious on any screen, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    await page.goto('/');
    await expect(page.getByRole('button', { name: 'Open a photo' })).toBeVisible();
    expect(await serious(page)).toEqual([]);
    await page.goto('/materials');
    await expect(page.getByRole('button', { name: 'Brick wall' })).toBeVisible();
    expect(await serious(page)).toEqual([]);
    await openSample(page, 'The old keeper');
    expect(await serious(page)).toEqual([]);
    for (const name of ['Material', 'Lay', 'Tone', 'Where', 'Blend', 'More']) {
      await facet(page, name);
      await settled(page);
      expect(await serious(page), name).toEqual([]);
    }
    await toRail(page);
    await page.getByTestId('card-photo').click();
    for (const name of ['Frame', 'Lens', 'Spots', 'Balance', 'Light', 'Colour', 'Detail', 'Starts']) {
      await facet(page, name);
      await settled(page);
      expect(await serious(page), name).toEqual([]);
    }
    await page.getByRole('button', { name: 'Export', exact: true }).click();
    await expect(page.getByRole('button', { name: 'Save the picture' })).toBeVisible();
    expect(await serious(page)).toEqual([]);
  });
}
