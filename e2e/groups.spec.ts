import { againstCommandLine } from './commandLine';
import { apart, expect, facet, lay, look, openPhoto, openSample, portrait, settled, test, toRail, type, type Page } from './fixtures';

const card = (page: Page, place: string) => page.getByTestId(`card-${place}`);
const seen = async (page: Page) => {
  await settled(page);
  return Promise.all([0.2, 0.5, 0.8].map((x) => look(page, x, 0.4)));
};
const off = (a: number[][], b: number[][]) => Math.max(...a.map((colour, i) => apart(colour, b[i])));

/** Chooses coats by their cards and puts them together. */
async function group(page: Page, first: string, ...others: string[]): Promise<void> {
  await toRail(page);
  await card(page, first).click();
  await facet(page, 'More');
  await page.getByRole('button', { name: 'Choose several coats' }).click();
  for (const place of others) await card(page, place).click();
  await expect(page.getByRole('status').filter({ hasText: `${others.length + 1} coats chosen` })).toBeVisible();
  await page.getByRole('button', { name: 'Group', exact: true }).click();
}

test('coats are chosen together and grouped: the picture stays; the group has one strength, is unfolded, and taken apart again', async ({ page }) => {
  test.setTimeout(180_000);
  await openSample(page, 'The light at dusk');
  const before = await seen(page);
  await card(page, '0').click();
  await facet(page, 'Blend');
  await group(page, '1', '2', '3');
  await expect(card(page, '1')).toHaveAccessibleName(/^Group · normal, 100 %/);
  expect(off(await seen(page), before)).toBeLessThan(1);

  await facet(page, 'Blend');
  await type(page, 'Strength', '0');
  const none = await seen(page);
  expect(off(none, before)).toBeGreaterThan(10);
  await type(page, 'Strength', '50');
  const half = await seen(page);
  expect(
    off(
      half,
      none.map((colour, i) => colour.map((v, k) => (v + before[i][k]) / 2)),
    ),
  ).toBeLessThan(2);
  await type(page, 'Strength', '100');

  await toRail(page);
  await page.getByRole('button', { name: 'Open Group' }).click();
  await expect(card(page, '1.2')).toHaveAccessibleName(/Scratches/);
  await card(page, '1.0').click();
  await facet(page, 'More');
  await page.getByRole('button', { name: 'Move out of its group' }).click();
  await toRail(page);
  await expect(card(page, '2')).toHaveAccessibleName(/Blue shadows/);
  await card(page, '1').click();
  await facet(page, 'Group');
  await page.getByRole('button', { name: 'Ungroup' }).click();
  await toRail(page);
  await expect(card(page, '3')).toHaveAccessibleName(/Blue shadows/);
});

test('a locked coat does not change until it is unlocked', async ({ page }) => {
  await openSample(page, 'The light at dusk');
  const before = await seen(page);
  await card(page, '2').click();
  await facet(page, 'More');
  await page.getByRole('switch', { name: 'Locked' }).click();
  await expect(card(page, '2').or(page.getByRole('button', { name: 'Undo: Lock' }))).not.toHaveCount(0);
  await page.keyboard.press('Delete');
  await expect(page.getByText('This coat is locked. Unlock it to change it.')).toBeVisible();
  await facet(page, 'Blend');
  await expect(page.getByText('This coat is locked.', { exact: true })).toBeVisible();
  // Its controls do not answer.
  await expect(page.locator('[inert]').getByRole('slider', { name: 'Strength' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Unlock' }).click();
  await type(page, 'Strength', '0');
  expect(off(await seen(page), before)).toBeGreaterThan(2);
});

test('a group in a mode of its own goes into a look, and the command line draws the same', { tag: '@wide' }, async ({ page }) => {
  test.setTimeout(180_000);
  const photo = await portrait();
  await openPhoto(page, photo);
  await lay(page, 'Cold-press paper');
  await lay(page, 'Craquelure');
  await group(page, '0', '1');
  await facet(page, 'Blend');
  await page.getByRole('button', { name: 'Soft light', exact: true }).click();
  await settled(page);
  const { mean, most } = await againstCommandLine(page, photo);
  expect(mean).toBeLessThan(0.2);
  expect(most).toBeLessThanOrEqual(2);
});
