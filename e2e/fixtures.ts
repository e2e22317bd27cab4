import { test as base, expect, type Page } from '@playwright/test';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';

export const PHOTO_WIDTH = 800;
export const PHOTO_HEIGHT = 1000;

const portraitFile = path.join(os.tmpdir(), `dermatex-portrait-${process.pid}.png`);
let made: Promise<string> | undefined;

/** A PNG of the sample portrait, so that every decoder reads the same pixels. */
export const portrait = (): Promise<string> =>
  (made ??= sharp('demo/photos/keeper.jpg')
    .resize(PHOTO_WIDTH, PHOTO_HEIGHT)
    .png()
    .toFile(portraitFile)
    .then(() => portraitFile));

/** Every test fails on a request that leaves the machine, and on an error in the page. */
export const test = base.extend<{ guarded: void }>({
  guarded: [
    async ({ page }, use) => {
      const outside: string[] = [];
      const errors: string[] = [];
      page.on('request', (r) => {
        const url = new URL(r.url());
        if (!['data:', 'blob:'].includes(url.protocol) && url.hostname !== 'localhost') outside.push(r.url());
      });
      page.on('pageerror', (e) => errors.push(e.message));
      // The first hints lie over the picture; their own test shows them.
      await page.addInitScript(() => {
        if (!location.search.includes('hints')) localStorage['dermatex.settings'] ??= JSON.stringify({ seenHints: ['coats', 'cards', 'guards'] });
      });
      await use();
      expect(outside, 'requests that leave the machine').toEqual([]);
      expect(errors, 'errors in the page').toEqual([]);
    },
    { auto: true },
  ],
});

export { expect, type Page };

export async function openPhoto(page: Page, file: string): Promise<void> {
  await page.goto('/');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Open a photo' }).click();
  await (await chooser).setFiles(file);
  await expect(page).toHaveURL(/\/piece\//);
  await drawn(page);
}

export async function openSample(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: `Open the sample ${name}` }).click();
  await expect(page).toHaveURL(/\/piece\//);
  await drawn(page);
}

/** Waits until the picture has been drawn and has rested. */
export async function drawn(page: Page): Promise<void> {
  await page.waitForFunction(() => (document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement | null)?.width! > 1);
  await settled(page);
}

/** Waits until the picture is drawn as finely as the screen, and stays so. */
export async function settled(page: Page): Promise<void> {
  for (let calm = 0; calm < 3;) {
    const state = await page.evaluate(() => (document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement | null)?.dataset.drawn);
    calm = state === 'fine' ? calm + 1 : 0;
    await page.waitForTimeout(60);
  }
}

/** Mean red, green and blue of the picture on the bench, around a point in fractions of the canvas. */
export async function look(page: Page, x = 0.5, y = 0.5, half = 6): Promise<number[]> {
  return page.evaluate(
    ([fx, fy, r]) => {
      const canvas = document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement;
      const data = canvas.getContext('2d')!.getImageData(Math.round(canvas.width * fx - r), Math.round(canvas.height * fy - r), 2 * r, 2 * r).data;
      const sum = [0, 0, 0];
      for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i];
      return sum.map((s) => s / (data.length / 4));
    },
    [x, y, half],
  );
}

export const apart = (a: number[], b: number[]) => Math.max(...a.map((v, i) => Math.abs(v - b[i])));

export async function facet(page: Page, name: string): Promise<void> {
  const tab = page.getByRole('tab', { name, exact: true });
  if ((await tab.getAttribute('aria-selected')) !== 'true') await tab.click();
  await whole(page);
}

/** On a phone an open sheet lies over a part of the picture, which keeps its place: puts the whole photo in view. */
export async function whole(page: Page): Promise<void> {
  if ((page.viewportSize()?.width ?? 0) >= 700) return;
  const fit = page.getByRole('button', { name: 'Fit', exact: true });
  if (await fit.isVisible()) await fit.click();
}

/** Lays a material from the grid that "Add a material" opens. */
export async function lay(page: Page, material: string): Promise<void> {
  await toRail(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: material, exact: true }).first().click();
  await page.getByRole('button', { name: 'Use it' }).click();
  await whole(page);
  await settled(page);
}

export async function type(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole('textbox', { name: `${label}, typed`, exact: true });
  await field.fill(value);
  await field.press('Enter');
}

/** Where a point of the photo (fractions) lies on the page, with the whole photo in view. */
export async function onPhoto(page: Page, x: number, y: number): Promise<{ x: number; y: number }> {
  const box = (await page.locator('[data-testid="picture"] canvas').boundingBox())!;
  return { x: box.x + box.width * x, y: box.y + box.height * y };
}

/** Painting is armed by a switch only; elsewhere a stroke draws a line, for instance. */
export async function arm(page: Page, label: 'Paint' | 'Remove spots' = 'Paint'): Promise<void> {
  const armed = page.getByRole('switch', { name: label });
  if ((await armed.count()) > 0 && !(await armed.isChecked())) await armed.click();
}

export async function paint(page: Page, points: [number, number][]): Promise<void> {
  await arm(page);
  const [first, ...rest] = points;
  const start = await onPhoto(page, ...first);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  for (const p of rest) {
    const { x, y } = await onPhoto(page, ...p);
    await page.mouse.move(x, y, { steps: 6 });
  }
  await page.mouse.up();
}

/** On a phone the open facet lies where the rail is; this puts it away. */
export async function toRail(page: Page): Promise<void> {
  const done = page.getByRole('button', { name: 'Done' });
  if (await done.isVisible()) await done.click();
}

/** A finger that goes down, moves through points of the page and lifts: real touch events. */
export async function finger(page: Page, points: { x: number; y: number }[]): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', at: { x: number; y: number }[]) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: at.map(({ x, y }) => ({ x, y, id: 1 })) });
  await send('touchStart', [points[0]]);
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    for (let k = 1; k <= 6; k++) await send('touchMove', [{ x: a.x + ((b.x - a.x) * k) / 6, y: a.y + ((b.y - a.y) * k) / 6 }]);
  }
  await send('touchEnd', []);
  await session.detach();
}

/** Opens a part of a panel under its name. */
export async function unfold(page: Page, name: string): Promise<void> {
  const head = page.getByRole('button', { name, exact: true });
  if ((await head.getAttribute('aria-expanded')) !== 'true') await head.click();
}

/** Adds one of the coats that "Other coats" offers. */
export async function addOther(page: Page, name: string): Promise<void> {
  await toRail(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: 'Other coats' }).click();
  await page.getByRole('button', { name, exact: true }).click();
  await whole(page);
  await settled(page);
}

/** A pen that goes down, moves through points of the page and lifts, pressed as `pressure` says at each of them: 0..1. */
export async function pen(page: Page, points: readonly { x: number; y: number }[], pressure: (i: number) => number): Promise<void> {
  const pressed = points.map(({ x, y }, i) => ({ clientX: x, clientY: y, pressure: pressure(i) }));
  await page.evaluate((list) => {
    const picture = document.querySelector('[data-testid="picture"]') as HTMLElement;
    picture.setPointerCapture = () => undefined;
    const send = (type: string, i: number) =>
      picture.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 5, pointerType: 'pen', button: 0, buttons: 1, ...list[i] }));
    send('pointerdown', 0);
    for (let i = 1; i < list.length; i++) send('pointermove', i);
    send('pointerup', list.length - 1);
  }, pressed);
}
