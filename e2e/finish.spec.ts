import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { againstCommandLine, ownLooks } from './commandLine';
import { addOther, apart, arm, expect, facet, lay, look, openPhoto, openSample, paint, portrait, settled, test, toRail, type Page } from './fixtures';

const finish = async (page: Page) => {
  await toRail(page);
  await page.getByRole('button', { name: 'Finish', exact: true }).click();
};

test('a piece is finished: a vignette on top in a tap, and the cast of the whole mended by curves on top of everything', async ({ page }) => {
  const file = path.join(os.tmpdir(), `dermatex-cast-${process.pid}.png`);
  // Grey, from dark to light, with too much red.
  const ramp = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400"><defs><linearGradient id="g"><stop stop-color="#3a2424"/><stop offset="1" stop-color="#ecc4c4"/></linearGradient></defs><rect width="600" height="400" fill="url(#g)"/></svg>',
  );
  await sharp(ramp).png().toFile(file);
  await openPhoto(page, file);
  await settled(page);
  await lay(page, 'Cold-press paper');
  await finish(page);
  await expect(page.getByTestId('scope')).toBeVisible();
  const cast = async () => {
    const [r, g, b] = await look(page, 0.5, 0.5, 10);
    return r - (g + b) / 2;
  };
  expect(await cast()).toBeGreaterThan(15);
  await page.getByRole('button', { name: 'Fix colour cast' }).click();
  await settled(page);
  expect(Math.abs(await cast())).toBeLessThan(8);
  const corner = (await look(page, 0.96, 0.05))[1];
  await page.getByRole('button', { name: 'Vignette', exact: true }).click();
  await settled(page);
  expect((await look(page, 0.96, 0.05))[1]).toBeLessThan(corner - 15);
  await toRail(page);
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/Finishing curves · normal/);
  await expect(page.getByTestId('card-2')).toHaveAccessibleName(/Vignette · normal/);
});

test('dodging and burning paints light and dark on neutral grey', async ({ page }) => {
  await openPhoto(page, await portrait());
  await settled(page);
  const places: [number, number][] = [
    [0.15, 0.3],
    [0.15, 0.6],
  ];
  const sum = async ([x, y]: [number, number]) => (await look(page, x, y, 5)).reduce((a, v) => a + v);
  const before = [await sum(places[0]), await sum(places[1])];
  await addOther(page, 'Dodge and burn');
  await arm(page);
  await expect(page.getByTestId('stroke-line')).toContainText('Lightening');
  const stroke = (y: number) =>
    paint(page, [
      [0.06, y],
      [0.26, y],
    ]);
  for (let i = 0; i < 3; i++) await stroke(0.3);
  await page.getByRole('radio', { name: 'Darken' }).click();
  for (let i = 0; i < 3; i++) await stroke(0.6);
  await settled(page);
  expect(await sum(places[0])).toBeGreaterThan(before[0] + 10);
  expect(await sum(places[1])).toBeLessThan(before[1] - 10);
});

test('a step is compared over its own choices, and one is taken', async ({ page }) => {
  await openSample(page, 'The signal officer');
  await settled(page);
  await addOther(page, 'Border');
  const edge = await look(page, 0.01, 0.5, 2);
  await page.getByRole('button', { name: 'Compare variations of border' }).click();
  // A mouse tries by pointing and takes by a click.
  await page.getByRole('button', { name: 'Torn paper', exact: true }).click();
  await settled(page);
  expect(apart(await look(page, 0.01, 0.5, 2), edge)).toBeGreaterThan(30);
  await expect(page.getByRole('button', { name: 'Undo: Use torn paper' })).toBeVisible();
});

test('photo to painting, from the photo to the export, is what the command line makes of it', async ({ page }) => {
  test.setTimeout(180_000);
  const photo = await portrait();
  await openPhoto(page, photo);
  await settled(page);
  await ownLooks(page);
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Apply a look' }).click();
  await (await chooser).setFiles('demo/pieces/painted.json');
  await toRail(page);
  await expect(page.getByTestId('card-6')).toHaveAccessibleName(/Signature · normal/);
  // While the presets are open, pictures of all looks are drawn too.
  await page.getByTestId('card-6').click();
  await settled(page);
  expect((await againstCommandLine(page, photo)).mean).toBeLessThan(0.5);
});

test('the irises are recoloured in two taps from the guard of the eyes', { tag: '@wide' }, async ({ page }) => {
  test.setTimeout(120_000);
  await openSample(page, 'The old keeper');
  await settled(page);
  await facet(page, 'Guards');
  const find = page.getByRole('button', { name: 'Find faces and people' });
  if (await find.isVisible()) await find.click();
  await page.getByTestId('region-eyes').click();
  await page.getByRole('button', { name: 'Recolour the irises' }).click();
  await settled(page);
  await expect(page.getByText('2 marks', { exact: true })).toBeVisible();
  const first = await look(page, 0.48, 0.405, 2);
  const colour = page.getByRole('textbox', { name: 'Colour of all marks, typed' });
  await colour.fill('#b05020');
  await colour.press('Enter');
  await settled(page);
  expect(apart(await look(page, 0.48, 0.405, 2), first)).toBeGreaterThan(12);
});
