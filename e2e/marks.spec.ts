import { againstCommandLine } from './commandLine';
import { addOther, apart, arm, expect, finger, look, onPhoto, openPhoto, openSample, paint, pen, portrait, settled, test, unfold } from './fixtures';

const isRed = ([r, g, b]: number[]) => r > 90 && g < 90 && b < 90;

test('marks are painted with the finger, erased, undone by stroke, and recoloured together', async ({ page }) => {
  test.setTimeout(120_000);
  const photo = await portrait();
  await openPhoto(page, photo);
  await settled(page);
  const before = await look(page, 0.2, 0.4);
  await addOther(page, 'Marks');
  await expect(page.getByTestId('stroke-line')).toContainText('Drag to pan');
  await arm(page);
  await expect(page.getByTestId('stroke-line')).toContainText('Painting on Marks');
  const at = async (...list: [number, number][]) => Promise.all(list.map((p) => onPhoto(page, ...p)));
  if ((page.viewportSize()?.width ?? 0) < 700) await finger(page, await at([0.05, 0.4], [0.35, 0.4]));
  else
    await paint(page, [
      [0.05, 0.4],
      [0.35, 0.4],
    ]);
  await settled(page);
  expect(isRed(await look(page, 0.2, 0.4, 3))).toBe(true);
  await expect(page.getByText('1 mark', { exact: true })).toBeVisible();
  await page.getByRole('radio', { name: 'Erase' }).click();
  await paint(page, [
    [0.2, 0.37],
    [0.2, 0.43],
  ]);
  await settled(page);
  expect(apart(await look(page, 0.2, 0.4, 3), before)).toBeLessThan(8);
  await page.getByRole('button', { name: 'Undo: Erase' }).click();
  await settled(page);
  expect(isRed(await look(page, 0.2, 0.4, 3))).toBe(true);
  await page.getByRole('switch', { name: 'Paint' }).click();
  const colour = page.getByRole('textbox', { name: 'Colour of all marks, typed' });
  await colour.fill('#20a040');
  await colour.press('Enter');
  await settled(page);
  const [r, g, b] = await look(page, 0.2, 0.4, 3);
  expect(g).toBeGreaterThan(Math.max(r, b) + 40);
  expect((await againstCommandLine(page, photo, { painted: true })).most).toBeLessThanOrEqual(1);
});

test('a mark painted with a pen is wide where the pen is pressed', async ({ page }) => {
  await openPhoto(page, await portrait());
  await settled(page);
  await addOther(page, 'Marks');
  await arm(page);
  const at = async (x: number) => onPhoto(page, x, 0.25);
  const places = await Promise.all(Array.from({ length: 21 }, (_, i) => at(0.05 + 0.0145 * i)));
  await pen(page, places, (i) => 0.05 + (0.95 * i) / (places.length - 1));
  await settled(page);
  await expect(page.getByText('1 mark', { exact: true })).toBeVisible();
  // Beside its middle line a pressed pen still covers, a light one does not.
  expect(isRed(await look(page, 0.33, 0.25, 2))).toBe(true);
  expect(isRed(await look(page, 0.33, 0.257, 1))).toBe(true);
  expect(isRed(await look(page, 0.09, 0.257, 1))).toBe(false);
});

test('white marks are seen on a plain ground while they are painted, and lines are ruled from point to point', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  await addOther(page, 'Marks');
  await unfold(page, 'Brush settings');
  await page.getByRole('switch', { name: 'Lines from tap to tap' }).click();
  await page.getByRole('switch', { name: 'Plain ground' }).click();
  await settled(page);
  expect(Math.min(...(await look(page, 0.1, 0.1)))).toBeGreaterThan(150);
  await page.getByRole('switch', { name: 'Plain ground' }).click();
  await arm(page);
  const tap = async (x: number, y: number) => {
    const p = await onPhoto(page, x, y);
    await page.mouse.click(p.x, p.y);
    await settled(page);
  };
  // From outside the picture to its middle, then on downwards; a new line begins elsewhere.
  await tap(-0.05, 0.2);
  await tap(0.3, 0.2);
  expect(isRed(await look(page, 0.15, 0.2, 3))).toBe(true);
  await page.getByRole('button', { name: 'End the line' }).click();
  await tap(0.3, 0.9);
  expect(isRed(await look(page, 0.3, 0.55, 3))).toBe(false);
});

test('a border and a signature, from photo to export, are what the command line makes of them', async ({ page }) => {
  test.setTimeout(180_000);
  const photo = await portrait();
  await openPhoto(page, photo);
  await settled(page);
  await addOther(page, 'Border');
  await page.getByRole('radio', { name: 'Torn paper' }).click();
  await settled(page);
  expect(Math.min(...(await look(page, 0.01, 0.5, 2)))).toBeGreaterThan(120);
  await addOther(page, 'Signature');
  const pad = (await page.getByTestId('signature-pad').boundingBox())!;
  await page.mouse.move(pad.x + 0.2 * pad.width, pad.y + 0.5 * pad.height);
  await page.mouse.down();
  for (let i = 1; i < 12; i++) await page.mouse.move(pad.x + (0.2 + 0.05 * i) * pad.width, pad.y + (0.5 + 0.2 * Math.sin(i)) * pad.height);
  await page.mouse.up();
  await page.getByRole('button', { name: 'Use this signature' }).click();
  await expect(page.getByRole('slider', { name: 'From the edges' })).toBeVisible();
  await settled(page);
  expect((await againstCommandLine(page, photo)).most).toBeLessThanOrEqual(1);
  // It is kept: the next one begins with it.
  await addOther(page, 'Signature');
  await expect(page.getByRole('slider', { name: 'From the edges' })).toBeVisible();
});
