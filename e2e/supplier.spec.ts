import { expect, test, type Page } from './fixtures';

const behave = async (page: Page, answers: string) => {
  const response = await page.request.post('/supplier/behaviour', { data: { answers } });
  expect(response.ok()).toBe(true);
};
const pack = (page: Page) => page.getByRole('group', { name: 'Net loft sheets' });

test.afterEach(({ page }) => behave(page, 'well'));

// The supplier behaves for all pages as one test wants: one test after another.
test.describe.configure({ mode: 'default' });

test('a pack of the supplier is looked at, fetched, and lies on the shelf', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/materials');
  await page.getByRole('button', { name: 'Look at the supplier’s packs' }).click();
  await expect(pack(page)).toContainText('Skerry Paper Store');
  await pack(page).getByRole('button', { name: 'Download' }).click();
  await expect(page.getByText('3 pictures added to the shelf')).toBeVisible();
  await page.getByRole('button', { name: 'Back' }).click();
  await page.getByRole('button', { name: 'Chart paper', exact: true }).click();
  await expect(page.getByText('by Skerry Paper Store')).toBeVisible();
});

test('a slow supplier shows how far it is and can be stopped; nothing is kept then', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/packs');
  await expect(pack(page)).toBeVisible();
  await behave(page, 'slow');
  await pack(page).getByRole('button', { name: 'Download' }).click();
  await expect(pack(page).getByRole('status')).toContainText(/[1-9]\d? % downloaded/);
  await pack(page).getByRole('button', { name: 'Stop' }).click();
  await expect(pack(page).getByRole('button', { name: 'Download' })).toBeEnabled();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.goto('/materials');
  await expect(page.getByRole('button', { name: 'Cold-press paper', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Chart paper', exact: true })).toHaveCount(0);
});

test('a failing supplier is said in one sentence, the shelf works without it, and asking again helps', { tag: '@phone' }, async ({ page }) => {
  await behave(page, 'failing');
  await page.goto('/packs');
  await expect(page.getByRole('alert')).toContainText('The supplier does not answer; your own shelf works without it');
  await page.goto('/materials');
  await expect(page.getByRole('button', { name: 'Cold-press paper', exact: true })).toBeVisible();
  await page.goto('/packs');
  await expect(page.getByRole('button', { name: 'Try again' })).toBeVisible();
  await behave(page, 'well');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(pack(page)).toBeVisible();
  await behave(page, 'failing');
  await pack(page).getByRole('button', { name: 'Download' }).click();
  await expect(page.getByRole('alert')).toContainText('The supplier did not send “Net loft sheets”');
});

test('a corrupt answer is noticed: the catalogue and a pack', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/packs');
  await expect(pack(page)).toBeVisible();
  await behave(page, 'corrupt');
  await pack(page).getByRole('button', { name: 'Download' }).click();
  await expect(page.getByRole('alert')).toContainText('arrived damaged, so nothing was kept');
  await page.goto('/packs');
  await expect(page.getByRole('alert')).toContainText('The supplier’s catalogue arrived damaged');
});
