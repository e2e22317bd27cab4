import sharp from 'sharp';
import { apart, expect, facet, look, openPhoto, openSample, paint, settled, test, toRail, type } from './fixtures';
import os from 'node:os';
import path from 'node:path';
import { readFile } from 'node:fs/promises';

/** A grey-blue scene with a level horizon, turned clockwise by some degrees and cut to 900 × 600. */
async function tilted(degrees: number): Promise<string> {
  const file = path.join(os.tmpdir(), `dermatex-tilted-${process.pid}.png`);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><g transform="rotate(${degrees} 450 300)">
    <rect x="-500" y="-500" width="1900" height="840" fill="#9db4cc"/><rect x="-500" y="340" width="1900" height="900" fill="#3c5a63"/>
    <rect x="600" y="120" width="60" height="220" fill="#e8e2d8"/><rect x="180" y="260" width="160" height="80" fill="#7a4f3d"/></g></svg>`;
  await sharp(Buffer.from(svg)).png().toFile(file);
  return file;
}

test('readying on the way to a picture: levelled, framed, balanced, lit, and saved', async ({ page }) => {
  await openPhoto(page, await tilted(4));
  await page.getByTestId('card-photo').click();
  await facet(page, 'Crop');
  await page.getByRole('button', { name: 'Auto straighten' }).click();
  const level = page.getByRole('textbox', { name: 'Level, typed' });
  await expect.poll(async () => Math.abs(Number(await level.inputValue()) - 4)).toBeLessThan(0.5);
  // A side pulled in by touch or mouse.
  const side = (await page.getByTestId('frame-s').boundingBox())!;
  await page.mouse.move(side.x + side.width / 2, side.y + side.height / 2);
  await page.mouse.down();
  await page.mouse.move(side.x + side.width / 2, side.y - 40, { steps: 6 });
  await page.mouse.up();
  const size = (await page.getByTestId('frame-size').textContent())!;
  const [width, height] = /(\d+) × (\d+)/.exec(size)!.slice(1).map(Number);
  expect(width / height).toBeGreaterThan(1.6);
  await toRail(page);
  await settled(page);
  // The horizon is level now: left and right of the picture change at the same height.
  const left = await look(page, 0.05, 0.9);
  const right = await look(page, 0.95, 0.9);
  expect(apart(left, right)).toBeLessThan(6);
  await facet(page, 'Light');
  const before = await look(page, 0.3, 0.1);
  await type(page, 'Exposure', '0.5');
  await settled(page);
  expect((await look(page, 0.3, 0.1))[0]).toBeGreaterThan(before[0] + 8);
  await facet(page, 'Colour');
  await page.getByRole('button', { name: 'Pick neutral' }).click();
  const picture = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
  await page.mouse.click(picture.x + picture.width * 0.3, picture.y + picture.height * 0.1);
  await expect(page.getByText('A spot of the photo is kept grey.')).toBeVisible();
  await settled(page);
  const grey = await look(page, 0.3, 0.1);
  expect(Math.max(...grey) - Math.min(...grey)).toBeLessThan(4);
  await toRail(page);
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the picture' }).click();
  const file = await (await saved).path();
  expect(await sharp(await readFile(file)).metadata()).toMatchObject({ width, height });
});

test('a late crop leaves coats and masks where they lie on the photo', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await page.getByTestId('card-1').click();
  await facet(page, 'Mask');
  await paint(page, [
    [0.2, 0.2],
    [0.3, 0.2],
  ]);
  // Seen at the same size before and after: on a phone an open sheet makes the picture smaller.
  await toRail(page);
  await settled(page);
  const spots: [number, number][] = [
    [0.35, 0.3],
    [0.6, 0.55],
    [0.45, 0.8],
  ];
  const before = [];
  for (const [x, y] of spots) before.push(await look(page, x, y, 10));
  await page.getByTestId('card-photo').click();
  await facet(page, 'Crop');
  await page.getByRole('radio', { name: '1 : 1' }).click();
  const text = (await page.getByTestId('frame-size').textContent())!;
  const [w, h, W, H] = /(\d+) × (\d+) of (\d+) × (\d+)/.exec(text)!.slice(1).map(Number);
  expect(w).toBe(h);
  await toRail(page);
  // Seen whole, in its new frame.
  await facet(page, 'More');
  await toRail(page);
  await settled(page);
  for (const [i, [x, y]] of spots.entries()) {
    const [fx, fy] = [(x * W - (W - w) / 2) / w, (y * H - (H - h) / 2) / h];
    if (fx < 0.05 || fy < 0.05 || fx > 0.95 || fy > 0.95) continue;
    // The same place of the photo, averaged over as much of it.
    expect(apart(before[i], await look(page, fx, fy, 10))).toBeLessThan(12);
  }
  await page.getByRole('button', { name: 'Undo' }).click();
  await settled(page);
  expect(apart(before[1], await look(page, ...spots[1], 10))).toBeLessThan(3);
});

test('a line drawn along something upright levels the photo; quarter turns and mirroring show at once', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await tilted(-3));
  await page.getByTestId('card-photo').click();
  await facet(page, 'Crop');
  await page.getByRole('button', { name: 'Draw a level line' }).click();
  await expect(page.getByTestId('stroke-line')).toHaveText('Draw along something level or upright');
  const box = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
  // Along the horizon, which falls to the left by three degrees.
  const at = (x: number, y: number) => [box.x + (box.width * x) / 900, box.y + (box.height * y) / 600];
  const rise = Math.tan((3 * Math.PI) / 180);
  const [x0, y0] = at(100, 340 + 350 * rise);
  const [x1, y1] = at(800, 340 - 350 * rise);
  await page.mouse.move(x0, y0);
  await page.mouse.down();
  await page.mouse.move(x1, y1, { steps: 8 });
  await page.mouse.up();
  const level = page.getByRole('textbox', { name: 'Level, typed' });
  await expect.poll(async () => Math.abs(Number(await level.inputValue()) + 3)).toBeLessThan(0.6);
  await page.getByRole('button', { name: 'Reset crop' }).click();
  await page.getByRole('button', { name: 'Rotate right 90°' }).click();
  await expect(page.getByTestId('frame-size')).toContainText('600 × 900 of 900 × 600');
  await settled(page);
  const sky = await look(page, 0.9, 0.5);
  await page.getByRole('button', { name: 'Flip horizontal' }).click();
  await settled(page);
  expect(apart(sky, await look(page, 0.1, 0.5))).toBeLessThan(4);
  expect(apart(sky, await look(page, 0.9, 0.5))).toBeGreaterThan(40);
});

test('perspective: two lines make verticals upright, four corners make a rectangle, and it can be undone', { tag: '@wide' }, async ({ page }) => {
  const file = path.join(os.tmpdir(), `dermatex-keystone-${process.pid}.png`);
  // A light door on a dark wall, narrower at the top.
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><rect width="900" height="600" fill="#46525a"/><polygon points="330,80 570,80 660,560 240,560" fill="#d9cfae"/></svg>';
  await sharp(Buffer.from(svg)).png().toFile(file);
  await openPhoto(page, file);
  await page.getByTestId('card-photo').click();
  await facet(page, 'Crop');
  await page.getByRole('button', { name: 'Draw two uprights' }).click();
  await expect(page.getByTestId('stroke-line')).toHaveText('Draw along something upright');
  const line = async (x0: number, y0: number, x1: number, y1: number) => {
    const box = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
    const at = (x: number, y: number): [number, number] => [box.x + (box.width * x) / 900, box.y + (box.height * y) / 600];
    await page.mouse.move(...at(x0, y0));
    await page.mouse.down();
    await page.mouse.move(...at(x1, y1), { steps: 6 });
    await page.mouse.up();
  };
  await settled(page);
  await line(330, 80, 240, 560);
  await expect(page.getByTestId('stroke-line')).toHaveText('Draw along something else upright');
  await line(570, 80, 660, 560);
  await expect(page.getByRole('button', { name: 'Reset perspective' })).toBeVisible();
  await toRail(page);
  await facet(page, 'More');
  await toRail(page);
  await settled(page);
  // The door's sides are upright: just inside and outside of them, high and low.
  const [left, right] = await page.evaluate(() => {
    const canvas = document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement;
    const sides = (fy: number) => {
      const row = canvas.getContext('2d')!.getImageData(0, Math.round(canvas.height * fy), canvas.width, 1).data;
      const light = Array.from({ length: canvas.width }, (_, i) => row[4 * i] > 140);
      return [light.indexOf(true), light.lastIndexOf(true)];
    };
    const [a, b] = [sides(0.35), sides(0.7)];
    return [Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])];
  });
  expect(left).toBeLessThanOrEqual(3);
  expect(right).toBeLessThanOrEqual(3);
  await facet(page, 'Crop');
  await page.getByRole('button', { name: 'Reset perspective' }).click();
  await page.getByRole('button', { name: 'Four corners' }).click();
  await settled(page);
  const corner = (await page.getByTestId('corner-0').boundingBox())!;
  await page.mouse.move(corner.x + 22, corner.y + 22);
  await page.mouse.down();
  await page.mouse.move(corner.x + 62, corner.y + 52, { steps: 5 });
  await page.mouse.up();
  await page.getByRole('button', { name: 'Back to the frame' }).click();
  await expect(page.getByTestId('frame-size')).toContainText('900 × 600 of 900 × 600');
  await page.getByRole('button', { name: 'Reset crop' }).click();
  await expect(page.getByRole('button', { name: 'Reset perspective' })).toHaveCount(0);
});
