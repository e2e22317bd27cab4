import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { againstCommandLine, ownLooks } from './commandLine';
import {
  arm,
  apart,
  drawn,
  expect,
  facet,
  lay,
  look,
  openPhoto,
  paint,
  PHOTO_HEIGHT,
  PHOTO_WIDTH,
  portrait,
  settled,
  test,
  toRail,
  type,
  whole,
} from './fixtures';

const cheek: [number, number] = [0.55, 0.46];
const wall: [number, number] = [0.12, 0.2];

test('a photo in, a paper over it where wanted, a picture out', async ({ page }) => {
  const photo = await portrait();
  await openPhoto(page, photo);
  const bareWall = await look(page, ...wall);

  await test.step('a material shows at once, with the mode and strength it suggests', async () => {
    await lay(page, 'Aged, stained paper');
    await toRail(page);
    await expect(page.getByTestId('card-0')).toHaveAccessibleName(/Aged, stained paper · multiply, 60 %/);
    expect(apart(await look(page, ...wall), bareWall)).toBeGreaterThan(8);
  });

  await test.step('another mode, eased', async () => {
    await facet(page, 'Blend');
    await settled(page);
    const before = await look(page, ...wall);
    await page.getByRole('group', { name: 'Suggested' }).getByRole('button', { name: 'Overlay' }).click();
    await type(page, 'Strength', '80');
    await settled(page);
    await expect(page.getByRole('button', { name: /Undo: Strength/ })).toBeEnabled();
    expect(apart(await look(page, ...wall), before)).toBeGreaterThan(8);
  });

  await test.step('brushed off the face', async () => {
    await facet(page, 'Mask');
    await arm(page);
    await type(page, 'Brush strength', '100');
    await type(page, 'Flow', '80');
    await type(page, 'Hardness', '60');
    await expect(page.getByTestId('stroke-line')).toHaveText('Erasing Aged, stained paper, 100 %');
    await settled(page);
    // On a phone the picture is smaller now: the bare cheek is looked at anew.
    await page.keyboard.down('p');
    await settled(page);
    const bare = await look(page, ...cheek);
    await page.keyboard.up('p');
    await settled(page);
    const textured = await look(page, ...cheek);
    expect(apart(textured, bare)).toBeGreaterThan(4);
    for (let i = 0; i < 3; i++)
      await paint(page, [
        [0.48, 0.42],
        [0.55, 0.46],
        [0.62, 0.5],
        [0.55, 0.46],
        [0.5, 0.5],
      ]);
    await settled(page);
    expect(apart(await look(page, ...cheek), bare)).toBeLessThan(2);
    expect(apart(await look(page, ...wall), bareWall)).toBeGreaterThan(8);
    await page.getByRole('radio', { name: 'Mask alone' }).click();
    await settled(page);
    expect((await look(page, ...cheek))[0]).toBeLessThan(30);
    expect((await look(page, ...wall))[0]).toBeGreaterThan(250);
    await page.getByRole('radio', { name: 'The picture' }).click();
    await settled(page);
  });

  await test.step('compared: held, the photo shows; let go, the piece', async () => {
    const piece = await look(page, ...wall);
    const tab = page.getByRole('button', { name: 'Photo', exact: true }).first();
    const box = (await tab.boundingBox())!;
    await page.mouse.move(box.x + 10, box.y + 10);
    await page.mouse.down();
    await settled(page);
    expect(apart(await look(page, ...wall), bareWall)).toBeLessThan(2);
    await page.mouse.up();
    await settled(page);
    expect(apart(await look(page, ...wall), piece)).toBeLessThan(2);
  });

  await test.step('undone and redone', async () => {
    const kept = await look(page, ...cheek);
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo: Erase' }).click();
    await settled(page);
    expect(apart(await look(page, ...cheek), kept)).toBeGreaterThan(4);
    for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Redo: Erase' }).click();
    await settled(page);
    expect(apart(await look(page, ...cheek), kept)).toBeLessThan(1);
  });

  await test.step('saved, and the same as the command line makes it, within 1 level', async () => {
    expect((await againstCommandLine(page, photo, { painted: true })).most).toBeLessThanOrEqual(1);
  });

  await test.step('a reload keeps everything', async () => {
    await drawn(page);
    await toRail(page);
    await whole(page);
    await settled(page);
    const before = [await look(page, ...cheek), await look(page, ...wall)];
    await page.waitForTimeout(2000);
    await page.reload();
    await drawn(page);
    await expect(page.getByTestId('card-0')).toHaveAccessibleName(/Aged, stained paper · overlay, 80 %/);
    expect(apart(await look(page, ...cheek), before[0])).toBeLessThan(2);
    expect(apart(await look(page, ...wall), before[1])).toBeLessThan(2);
  });
});

test('export of JPEG at half size, a recipe laid again, and stopping', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: 'Half' }).click();
  const picture = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the picture' }).click();
  const meta = await sharp(await (await picture).path()).metadata();
  expect(meta).toMatchObject({ format: 'jpeg', width: PHOTO_WIDTH / 2, height: PHOTO_HEIGHT / 2 });
  await page.getByRole('button', { name: 'Back to the bench' }).click();
  await ownLooks(page);
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save look to file' }).click();
  const recipe = await (await file).path();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Apply a look' }).click();
  await (await chooser).setFiles(recipe);
  await expect(page.getByText('1 coat added by the look.')).toBeVisible();
  await toRail(page);
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/Raw linen · overlay/);
});

test('a photo of eighteen megapixels is softened widely where it is light, and saved as it was shown', { tag: '@phone' }, async ({ page }) => {
  // Flat bands: what is saved must be what the bench shows, wherever it is looked at.
  const [width, height] = [5200, 3500];
  const file = test.info().outputPath('bands.jpg');
  const band = (x: number) => `<rect x="${x}" width="1300" height="3500" fill="${x % 2600 ? '#e0c090' : '#204060'}"/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${[0, 1300, 2600, 3900].map(band).join('')}</svg>`;
  await sharp(Buffer.from(svg), { limitInputPixels: false }).jpeg({ quality: 92 }).toFile(file);
  await openPhoto(page, file);
  await toRail(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: 'Other coats' }).click();
  await page.getByRole('button', { name: 'Adjustment' }).click();
  await page.getByRole('button', { name: 'Blur', exact: true }).click();
  await type(page, 'Radius', '60');
  await settled(page);
  await facet(page, 'Mask');
  await page.getByRole('radio', { name: 'Hidden' }).click();
  await page.getByRole('combobox', { name: 'Add to the mask' }).selectOption({ label: 'Lights and darks' });
  await page.getByRole('radiogroup', { name: 'Looks at' }).getByRole('radio', { name: 'Coats below' }).click();
  await type(page, 'Feather', '400');
  await settled(page);
  const shown = await Promise.all([0.1, 0.25, 0.3, 0.6].map((x) => look(page, x, 0.5)));
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const picture = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Save the picture' }).click();
  const saved = sharp(await (await picture).path());
  expect(await saved.metadata()).toMatchObject({ width, height });
  for (const [i, x] of [0.1, 0.25, 0.3, 0.6].entries()) {
    // Statistics are of a file as it is, not of a part cut out of it.
    const piece = await saved
      .clone()
      .extract({ left: Math.round(width * x) - 20, top: height / 2 - 20, width: 40, height: 40 })
      .png()
      .toBuffer();
    const { channels } = await sharp(piece).stats();
    expect(
      apart(
        channels.slice(0, 3).map((c) => c.mean),
        shown[i],
      ),
    ).toBeLessThan(6);
  }
});

test('a recipe with a whole readying gives the same picture in the page as on the command line, to the byte', { tag: '@wide' }, async ({ page }) => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-e2e-'));
  const photo = await portrait();
  const recipe = path.join(folder, 'whole.json');
  const ready = {
    crop: { x: 0.05, y: 0.1, w: 0.8, h: 0.8 },
    whiteBalance: { neutral: [0.2, 0.2], warmth: 0.2 },
    tone: { exposure: 0.3 },
    even: { amount: 0.6 },
    localTone: { flatten: 0.3, detail: 0.2 },
    localContrast: { amount: 0.3 },
    levels: { black: 0.05, white: 0.95 },
    ranges: { shadowBlue: 0.3 },
    hues: [{ hue: 30, width: 60, saturation: -0.5 }],
    noise: { luma: 0.3 },
    lens: { k1: -0.05, corners: 0.3 },
  };
  const source = { kind: 'material', id: 'paper.aged', seed: 3 };
  writeFileSync(recipe, JSON.stringify({ dermatex: 1, strength: 0.7, ready, coats: [{ source, blend: 'multiply', strength: 0.6 }] }));
  const made = path.join(folder, 'line.png');
  execFileSync(process.execPath, ['build/cli-main.mjs', 'render', '--photo', photo, '--recipe', recipe, '--out', made]);
  await openPhoto(page, photo);
  await ownLooks(page);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Apply a look' }).click();
  await (await chooser).setFiles(recipe);
  await expect(page.getByText('1 coat added by the look.')).toBeVisible();
  await toRail(page);
  await settled(page);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('radio', { name: 'PNG' }).click();
  const picture = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the picture' }).click();
  const exported = path.join(folder, 'page.png');
  await (await picture).saveAs(exported);
  const read = (f: string) => sharp(f).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const [a, b] = [await read(exported), await read(made)];
  expect(a.info).toMatchObject({ width: PHOTO_WIDTH * 0.8, height: PHOTO_HEIGHT * 0.8 });
  let [most, count] = [0, 0];
  a.data.forEach((v, i) => ((most = Math.max(most, Math.abs(v - b.data[i]))), (count += +(v !== b.data[i]))));
  expect({ most, count }).toEqual({ most: 0, count: 0 });
});
