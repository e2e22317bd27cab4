// Takes the pictures of docs/screenshots anew, from the sample pieces: npm run build, then node scripts/screenshots.mjs
import { chromium } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { chromiumOptions } from './chromium.mjs';
import { root } from './run-ts.mjs';
import { serve } from './serve.mjs';

const port = 4392;
const out = path.join(root, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const stop = await serve(port);
const browser = await chromium.launch(chromiumOptions);

async function at(width, height, colorScheme, run) {
  const page = await browser.newPage({ viewport: { width, height }, colorScheme, hasTouch: width < 700, serviceWorkers: 'block' });
  await page.addInitScript(() => (localStorage['dermatex.settings'] ??= JSON.stringify({ seenHints: ['coats', 'cards', 'guards'] })));
  await page.goto(`http://localhost:${port}/`);
  const shot = (name) => page.screenshot({ path: path.join(out, `${name}.png`) });
  const sample = async (name) => {
    await page.goto(`http://localhost:${port}/`);
    await page.getByRole('button', { name: `Open the sample ${name}` }).click();
    await page.waitForSelector('canvas[data-drawn="fine"]');
    await page.waitForTimeout(2500);
  };
  const calm = async () => {
    await page.waitForTimeout(400);
    await page.waitForSelector('canvas[data-drawn="fine"]');
    await page.waitForTimeout(1200);
  };
  await run({ page, shot, sample, calm });
  await page.close();
}

const wide = [1280, 800];
const phone = [390, 844];
await at(...wide, 'light', async ({ page, shot, sample, calm }) => {
  await sample('The light at dusk');
  await page.getByTestId('card-2').click();
  await page.getByTestId('card-3').click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Group', exact: true }).click();
  await page.getByRole('button', { name: 'Open Group' }).click();
  await page.getByRole('tab', { name: 'Blend' }).click();
  await page.mouse.move(400, 20);
  await calm();
  await shot('bench-wide');
  await page.getByRole('button', { name: 'Compare all modes' }).click();
  await calm();
  await shot('contact-wide');
  await page.getByTestId('card-photo').click();
  await page.getByRole('tab', { name: 'Light' }).click();
  await calm();
  await shot('light-wide');
  await sample('Harbour wall');
  await page.getByTestId('card-photo').click();
  await page.getByRole('tab', { name: 'Spots' }).click();
  await page.getByRole('button', { name: 'Spot 1', exact: true }).click();
  await calm();
  await shot('spots-wide');
  await sample('The old keeper');
  await page.getByRole('tab', { name: 'Mask' }).click();
  await page.getByRole('radio', { name: 'Show mask' }).click();
  await calm();
  await page.mouse.move(420, 260);
  await shot('where-wide');
  await page.getByRole('tab', { name: 'Guards' }).click();
  await page.getByRole('button', { name: 'Find faces and people' }).click();
  await page.getByTestId('region-lips').click();
  await page.getByRole('radio', { name: 'Show guards' }).click();
  await page.getByTestId('region-lips').click();
  await page.getByTestId('region-eyes').scrollIntoViewIfNeeded();
  await page.waitForTimeout(4500);
  await calm();
  await shot('guards-wide');
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.waitForTimeout(2500);
  await shot('export-wide');
  await sample('The keeper in porcelain');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('button', { name: 'Add one' }).click();
  await page.getByRole('combobox', { name: 'Picture 3' }).selectOption({ label: 'Texture only' });
  await page.getByRole('button', { name: 'Keep a proof' }).click();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.waitForTimeout(5000);
  await shot('compare-wide');
  await page.goto(`http://localhost:${port}/materials`);
  await page.waitForTimeout(2500);
  await shot('shelf-wide');
  await sample('Left on the sill');
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
  await page.getByRole('radio', { name: 'RGB parade' }).click();
  await calm();
  await shot('finish-wide');
  await page.goto(`http://localhost:${port}/`);
  await page.waitForTimeout(2000);
  await shot('pieces-wide');
});
await at(...phone, 'light', async ({ page, shot, sample, calm }) => {
  await sample('The old keeper');
  await shot('bench-phone');
  await sample('The keeper in porcelain');
  await page.getByTestId('card-1').click();
  await page.getByRole('tab', { name: 'Surface' }).click();
  await calm();
  await shot('surface-phone');
});
await at(...phone, 'light', async ({ page, shot, sample, calm }) => {
  await sample('The old keeper');
  await page.getByTestId('card-photo').click();
  await page.getByRole('tab', { name: 'Presets' }).click();
  await page.waitForTimeout(9000);
  await page.getByRole('button', { name: 'Old glaze' }).scrollIntoViewIfNeeded();
  await page.waitForTimeout(6000);
  await page.getByRole('button', { name: 'Stained sheet' }).scrollIntoViewIfNeeded();
  // Looks are drawn once they are in view: coarsely, then finely.
  await page.waitForTimeout(15_000);
  await calm();
  await shot('looks-phone');
});
await at(...phone, 'light', async ({ page, shot }) => {
  await page.getByRole('button', { name: 'Batch' }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose photos' }).click();
  const photos = ['harbour-wall', 'keeper', 'lamp-and-lemons', 'light-at-dusk', 'signal-officer'];
  await (await chooser).setFiles(photos.map((name) => path.join(root, `demo/photos/${name}.jpg`)));
  await page.getByRole('combobox', { name: 'Look' }).selectOption({ label: 'Plaster wall' });
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await page.getByText('4 of 5 done').waitFor({ timeout: 120_000 });
  await page.waitForTimeout(300);
  await shot('batch-phone');
});
await at(...phone, 'light', async ({ page, shot, sample, calm }) => {
  await sample('The light at dusk');
  await page.getByTestId('card-photo').click();
  await page.getByRole('tab', { name: 'Colour' }).click();
  await page.getByRole('radio', { name: 'RGB parade' }).click();
  await calm();
  await shot('colour-phone');
});
await at(...phone, 'light', async ({ page, shot, sample, calm }) => {
  await sample('The signal officer');
  await page.getByRole('tab', { name: 'Guards' }).click();
  await page.getByRole('radio', { name: 'Show guards' }).click();
  await page.getByTestId('region-eyes').click();
  await calm();
  await shot('guards-phone');
});
await at(...phone, 'light', async ({ page, shot, sample, calm }) => {
  await sample('The cracked officer');
  await page.getByTestId('card-1').click();
  await page.getByRole('tab', { name: 'Marks' }).click();
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  await calm();
  await shot('marks-phone');
});
await at(...phone, 'dark', async ({ page, shot, sample, calm }) => {
  await sample('Harbour wall');
  await page.getByRole('tab', { name: 'Blend' }).click();
  await calm();
  await shot('blend-phone-dark');
});
await browser.close();
stop();
