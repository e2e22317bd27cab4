import sharp from 'sharp';
import { expect, openPhoto, portrait, test, type Page } from './fixtures';

/** Brings files in on the shelf. */
async function bring(page: Page, files: { name: string; buffer: Buffer }[]): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import pictures' }).click();
  await (await chooser).setFiles(files.map((f) => ({ ...f, mimeType: 'application/octet-stream' })));
}

/** A sheet with grain, scanned on a ground of one colour. */
const scan = (background: string, side: number) =>
  sharp({ create: { width: 700, height: 500, channels: 3, background: '#b7a58c', noise: { type: 'gaussian', mean: 150, sigma: 22 } } })
    .extend({ top: side, bottom: side, left: side, right: side, background })
    .png()
    .toBuffer();

const sixteen = () =>
  sharp(
    Uint16Array.from({ length: 300 * 200 * 3 }, (_, i) => 32768 + (Math.floor(i / 3) % 300) * 2),
    { raw: { width: 300, height: 200, channels: 3 } },
  )
    .toColourspace('rgb16')
    .png()
    .toBuffer();

test(
  'three scans with borders, one of 16 bits and a corrupt one: trimmed, kept, named, and the bad one said',
  { tag: '@phone' },
  async ({ page }) => {
    await openPhoto(page, await portrait());
    await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
    await page.getByRole('button', { name: 'Open the shelf' }).click();
    const good = await scan('#101010', 25);
    await bring(page, [
      { name: 'dark surround.png', buffer: good },
      { name: 'broken.png', buffer: good.subarray(0, 900) },
      { name: 'white surround.png', buffer: await scan('#fafafa', 18) },
      { name: 'black surround.png', buffer: await scan('#000000', 40) },
      { name: 'sixteen.png', buffer: await sixteen() },
    ]);
    await expect(page.getByRole('alert').filter({ hasText: '“broken.png” is cut short' })).toBeVisible();
    await expect(page.getByText('4 pictures added to the shelf; the borders of 3 scans are trimmed.')).toBeVisible();

    await page.getByRole('button', { name: 'dark surround', exact: true }).click();
    const figure = async (label: string) => Number(await page.getByRole('textbox', { name: `${label}, typed` }).inputValue());
    // 25 of 750 and of 550 pixels, and no more than a few beyond.
    expect(await figure('Trim left')).toBeGreaterThanOrEqual(3.3);
    expect(await figure('Trim left')).toBeLessThan(4);
    expect(await figure('Trim top')).toBeGreaterThanOrEqual(4.5);
    expect(await figure('Trim top')).toBeLessThan(5.5);

    // Named, put among the favourites, made seamless; then found by a word.
    await page.getByRole('textbox', { name: 'Name' }).fill('Sail loft paper');
    await page.getByRole('textbox', { name: 'Name' }).press('Enter');
    await page.getByRole('switch', { name: 'Favourite' }).click();
    await page.getByRole('switch', { name: 'Tile without a seam' }).click();
    await expect(page.getByRole('switch', { name: 'Show four tiles' })).toBeVisible();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page.getByRole('textbox', { name: 'Find a material' }).fill('loft pap');
    await expect(page.getByRole('button', { name: 'Sail loft paper', exact: true })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Kraft paper', exact: true })).toBeHidden();
    await page.getByRole('textbox', { name: 'Find a material' }).fill('');
    await expect(page.getByRole('button', { name: 'Sail loft paper, favourite', exact: true })).toBeVisible();

    // Laid on the open piece it stands among what was used lately, and knows where it is used.
    await page.getByRole('button', { name: 'sixteen', exact: true }).click();
    await page.getByRole('button', { name: /^Add to / }).click();
    await expect(page).toHaveURL(/\/piece\//);
    await expect(page.getByTestId('picture')).toBeVisible();
    await page.waitForTimeout(1200);
    await page.goto('/materials');
    await page.getByRole('button', { name: 'sixteen, used lately', exact: true }).click();
    await expect(page.getByText(/^Used in /)).toBeVisible();
    await page.getByRole('button', { name: 'Delete from shelf' }).click();
    await expect(page.getByRole('button', { name: 'sixteen', exact: true })).toBeHidden();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByRole('button', { name: 'sixteen', exact: true })).toBeVisible();
  },
);

test('16 bits reach the picture: a ramp of a hundredth, stretched to all of the scale, is smooth', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await page.goto('/materials');
  await bring(page, [{ name: 'sixteen.png', buffer: await sixteen() }]);
  await expect(page.getByText('“sixteen” added to the shelf.')).toBeVisible();
  const steps = await page.evaluate(async () => {
    const { dermatexEngine: engine } = globalThis as unknown as {
      dermatexEngine: { draw(d: object, use: (p: Uint8Array) => Uint8Array): Promise<Uint8Array> };
    };
    const read = (name: string) =>
      new Promise<string>((resolve, reject) => {
        const open = indexedDB.open('dermatex');
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const [store] = [...open.result.objectStoreNames];
          const got = open.result.transaction(store).objectStore(store).get(name);
          got.onsuccess = () => resolve(typeof got.result === 'string' ? got.result : got.result.value);
        };
      });
    const [own] = JSON.parse(await read('own')) as { key: string; name: string; width: number; height: number }[];
    const lay = { fit: 'stretch', scale: 1, stretchX: 1, stretchY: 1, x: 0, y: 0, turn: 0, flipX: false, flipY: false, mirror: false };
    const coat = {
      id: 'a',
      visible: true,
      source: { kind: 'picture', file: own.key },
      lay,
      treatments: [{ kind: 'levels', black: 0.5, middle: 1, white: 0.51, floor: 0, ceiling: 1, active: true, strength: 1, mode: 'normal' }],
      blend: 'normal',
      strength: 1,
      limits: [0, 0, 1, 1],
      mask: { start: 'all', parts: [] },
      guards: 1,
    };
    const piece = { photo: own, strength: 1, coats: [coat] };
    const pixels = await engine.draw({ piece, region: { x: 0, y: 0, width: 300, height: 200 }, scale: 1 }, (p) => p.slice());
    return new Set(Array.from({ length: 300 }, (_, x) => pixels[(100 * 300 + x) * 4])).size;
  });
  // 600 of 65536 steps cover nine tenths of the hundredth; 8 bits would leave three.
  expect(steps).toBeGreaterThan(150);
});

test('a pack goes out and comes in again', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/materials');
  await bring(page, [{ name: 'dark surround.png', buffer: await scan('#101010', 25) }]);
  await page.getByRole('button', { name: 'Export pack' }).click();
  await page.getByRole('textbox', { name: 'Name of the pack' }).fill('Loft sheets');
  await page.getByRole('textbox', { name: 'Maker' }).fill('Skerry');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save pack' }).click();
  const file = await (await download).path();
  expect((await download).suggestedFilename()).toBe('Loft-sheets.zip');
  await page.getByRole('button', { name: 'dark surround', exact: true }).click();
  await page.getByRole('button', { name: 'Delete from shelf' }).click();
  await expect(page.getByRole('button', { name: 'dark surround', exact: true })).toBeHidden();
  const { readFileSync } = await import('node:fs');
  await bring(page, [{ name: 'Loft-sheets.zip', buffer: readFileSync(file) }]);
  await page.getByRole('button', { name: 'dark surround', exact: true }).click();
  await expect(page.getByText('by Skerry')).toBeVisible();
});
