import { mkdtempSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { highestOctave } from '../src/testing/octave';
import { expect, openPhoto, settled, test, type Page } from './fixtures';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-detail-'));
const file = (name: string) => path.join(folder, name);
const [W, H] = [3600, 2400];

/** A plain grey photo, so that all that is fine in the result is the material's. */
async function largePhoto(): Promise<string> {
  await sharp({ create: { width: W, height: H, channels: 3, background: '#808080' } })
    .png()
    .toFile(file('grey.png'));
  return file('grey.png');
}

async function addMaterial(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name }).first().click();
  await page.getByRole('button', { name: 'Use it' }).first().click();
  await settled(page);
}

/** How strong the finest detail of the picture on the bench is. */
async function onTheBench(page: Page): Promise<number> {
  const { pixels, width, height } = await page.evaluate(() => {
    const canvas = document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement;
    const { width, height } = canvas;
    return { pixels: [...canvas.getContext('2d')!.getImageData(0, 0, width, Math.min(300, height)).data], width, height: Math.min(300, height) };
  });
  return highestOctave(Uint8Array.from(pixels), width, { x: 0, y: 0, width, height });
}

const detail = (page: Page) => page.evaluate(() => (document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement).dataset.detail);

async function save(page: Page, to: string): Promise<number> {
  const download = page.waitForEvent('download', { timeout: 120_000 });
  await page.getByRole('button', { name: 'Save the picture' }).click();
  await (await download).saveAs(file(to));
  const { data, info } = await sharp(file(to)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  expect([info.width, info.height]).toEqual([W, H]);
  return highestOctave(data, W, { x: 1200, y: 700, width: 800, height: 800 });
}

test('a material on a large photo sharpens at rest at 100 %, and goes out as fine as the photo', async ({ page }) => {
  await openPhoto(page, await largePhoto());
  await addMaterial(page, 'Cold-press paper');
  // On a phone one button leads from the present view to the whole, and from there to 100 %.
  const actual = page.getByRole('button', { name: '100 %', exact: true });
  if (!(await actual.isVisible())) await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await actual.click();
  await expect.poll(() => detail(page), { timeout: 60_000 }).toBe('full');
  const sharp = await onTheBench(page);

  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: 'PNG', exact: true }).click();
  const full = page.getByRole('switch', { name: 'Full detail' });
  await expect(full).toBeChecked();
  await expect(page.getByText(/Materials as fine as the photo; about \d+ s longer\./)).toBeVisible();
  const fine = await save(page, 'full.png');
  await full.click();
  const plain = await save(page, 'plain.png');
  // The screen at 100 % shows what goes out.
  expect(fine).toBeGreaterThan(1.25 * plain);
  expect(Math.abs(sharp / fine - 1)).toBeLessThan(0.3);
  // A small picture gains nothing, so that it is not offered.
  await page.getByRole('radio', { name: 'Half' }).click();
  await expect(full).toBeHidden();
});
