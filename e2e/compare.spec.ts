import sharp from 'sharp';
import { expect, openSample, settled, test, type Page } from './fixtures';

/** Mean red, green and blue of each picture that is compared, once all are finely drawn. */
async function pictures(page: Page): Promise<number[][]> {
  const canvases = page.locator('[data-testid="compared"] canvas');
  await expect
    .poll(() => canvases.evaluateAll((all) => all.length > 0 && all.every((canvas) => (canvas as HTMLElement).dataset.drawn === 'fine')), {
      timeout: 60_000,
    })
    .toBe(true);
  return canvases.evaluateAll((all) =>
    (all as HTMLCanvasElement[]).map((canvas) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      const sum = [0, 0, 0];
      for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i];
      return sum.map((s) => s / (data.length / 4));
    }),
  );
}
const apart = (a: number[], b: number[]) => Math.max(...a.map((v, i) => Math.abs(v - b[i])));
const places = (page: Page) =>
  page
    .locator('[data-testid="compared"] canvas')
    .evaluateAll((all) => (all as HTMLElement[]).map(({ style }) => [style.left, style.top, style.width].join(' ')));

test('stages side by side with one view; a proof beside the present, and back to it in one step of undo', async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('button', { name: 'Add one' }).click();
  await page.getByRole('combobox', { name: 'Picture 3' }).selectOption({ label: 'Texture only' });
  const [taken, now, texture] = await pictures(page);
  expect(apart(taken, now)).toBeGreaterThan(3);
  expect(apart(texture, now)).toBeGreaterThan(3);
  await page.getByRole('button', { name: '100 %' }).click();
  await pictures(page);
  const [first, ...others] = await places(page);
  expect(others).toEqual([first, first]);

  await page.getByRole('button', { name: 'Keep a proof' }).click();
  await page.getByRole('textbox', { name: 'Name of the proof' }).fill('Cracked');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Cracked', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Back to the bench' }).click();
  await page
    .getByRole('button', { name: /^Hide / })
    .last()
    .click();
  await settled(page);

  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('button', { name: 'Cracked', exact: true }).click();
  const [cracked, hidden] = await pictures(page);
  expect(apart(cracked, hidden)).toBeGreaterThan(0.5);
  const before = Date.now();
  await page.getByRole('button', { name: 'Go back to Cracked' }).click();
  await expect.poll(async () => apart(...((await pictures(page)) as [number[], number[]]))).toBeLessThan(0.2);
  console.log(`proof to the picture: ${Date.now() - before} ms at most`);
  await page.getByRole('button', { name: 'Back to the bench' }).click();
  await expect(page.getByRole('button', { name: 'Undo: Go back to Cracked' })).toBeEnabled();
  // It is there after a reload, and can be deleted and brought back.
  await page.reload();
  await settled(page);
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('button', { name: 'Cracked', exact: true }).click();
  await page.getByRole('button', { name: 'Delete the proof Cracked' }).click();
  await expect(page.getByRole('button', { name: 'Cracked', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Cracked', exact: true })).toBeVisible();
});

test('two states wiped against each other by the keyboard, and their difference made larger', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await pictures(page);
  await page.getByRole('radio', { name: 'Wipe' }).click();
  const edge = page.getByRole('slider', { name: 'Edge between the pictures' });
  await edge.focus();
  await page.keyboard.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', '55');
  await page.getByRole('radio', { name: 'Difference' }).click();
  await pictures(page);
  /** Mean and largest value in the middle of the picture. */
  const middle = async () => {
    const box = (await page.locator('[data-testid="compared"] canvas').first().boundingBox())!;
    const shot = await page.screenshot({ clip: { x: box.x + box.width / 4, y: box.y + box.height / 3, width: box.width / 2, height: 120 } });
    const { channels } = await sharp(shot).stats();
    return { mean: channels.slice(0, 3).reduce((sum, { mean }) => sum + mean, 0) / 3, most: Math.max(...channels.slice(0, 3).map(({ max }) => max)) };
  };
  await page.getByRole('radio', { name: '× 1', exact: true }).click();
  const once = await middle();
  await page.getByRole('radio', { name: '× 16' }).click();
  await expect(page.getByText('16 levels')).toBeVisible();
  expect((await middle()).mean).toBeGreaterThan(once.mean * 4);
  // A state beside itself is nowhere different.
  await page.getByRole('combobox', { name: 'Picture 1' }).selectOption({ label: 'Now' });
  await pictures(page);
  expect((await middle()).most).toBeLessThan(17);
});
