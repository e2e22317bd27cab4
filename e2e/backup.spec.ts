import os from 'node:os';
import path from 'node:path';
import { expect, look, openPhoto, openSample, portrait, settled, test, unfold, lay, type Page } from './fixtures';

const storage = async (page: Page) => {
  await page.goto('/');
  await unfold(page, 'Space and backup');
};

test(
  'everything goes out as one file, and comes back in a browser that has nothing; what has changed since stays, and the backup’s comes beside it',
  { tag: '@phone' },
  async ({ page, browser }) => {
    await openPhoto(page, await portrait());
    await lay(page, 'Raw linen');
    await settled(page);
    const seen = await look(page, 0.2, 0.2);
    await storage(page);
    await expect(page.getByText(/dermatex portrait \d+$/).first()).toBeVisible();
    await expect(page.getByText(/^\d[\d.]* (kB|MB)$/).first()).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Back up everything' }).click();
    const made = await download;
    expect(made.suggestedFilename()).toMatch(/^dermatex-\d{4}-\d\d-\d\d\.backup\.zip$/);
    const file = path.join(os.tmpdir(), `dermatex-${process.pid}.backup.zip`);
    await made.saveAs(file);

    const other = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true });
    const fresh = await other.newPage();
    const restore = async (says: string) => {
      await storage(fresh);
      const chooser = fresh.waitForEvent('filechooser');
      await fresh.getByRole('button', { name: 'Restore a backup' }).click();
      await (await chooser).setFiles(file);
      await expect(fresh.getByText(says)).toBeVisible();
    };
    await restore('1 piece restored.');
    await fresh.getByTestId('piece-card').getByRole('button').first().click();
    await settled(fresh);
    const back = await look(fresh, 0.2, 0.2);
    expect(Math.max(...back.map((v, i) => Math.abs(v - seen[i])))).toBeLessThan(1);
    await restore('0 pieces restored, 1 there already.');
    // Changed since: neither is lost.
    await fresh.getByTestId('piece-card').getByRole('button').first().click();
    await settled(fresh);
    await fresh
      .getByRole('button', { name: /^Hide / })
      .first()
      .click();
    await settled(fresh);
    // Saved at the latest 1.5 s after the change; the address is then asked for anew.
    await fresh.waitForTimeout(2500);
    await fresh.getByRole('button', { name: 'Back to the pieces' }).click();
    await restore('0 pieces restored, 1 added as a copy, because of later changes here.');
    await expect(fresh.getByTestId('piece-card')).toHaveCount(2);
    await expect(fresh.getByText(/, from the backup$/).first()).toBeVisible();
    await other.close();
  },
);

test('a file that is no backup is told in one sentence, and changes nothing', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await storage(page);
  for (const [name, buffer, says] of [
    ['letter.zip', Buffer.from('Dear keeper'), /“letter.zip” is not a zip file, or is damaged/],
    ['look.zip', Buffer.from((await import('fflate')).zipSync({ 'recipe.json': new Uint8Array(2) })), /“look.zip” is not a backup of Dermatex/],
  ] as const) {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Restore a backup' }).click();
    await (await chooser).setFiles({ name, mimeType: 'application/zip', buffer });
    await expect(page.getByRole('alert').filter({ hasText: says })).toBeVisible();
  }
  await expect(page.getByTestId('piece-card')).toHaveCount(1);
});
