import { againstCommandLine } from './commandLine';
import type { Locator } from '@playwright/test';
import { apart, expect, facet, finger, lay, look, onPhoto, openPhoto, pen, portrait, settled, test, toRail, type Page } from './fixtures';

/** What is laid on the photo of a person needs its faces found first. */
const FINDING = 60_000;

type Place = { x: number; y: number };

/** Drags from one point of the page to another, with a finger where there is a touch screen. */
async function drag(page: Page, points: [Place, Place], hasTouch: boolean): Promise<void> {
  if (hasTouch) return finger(page, points);
  await page.mouse.move(points[0].x, points[0].y);
  await page.mouse.down();
  await page.mouse.move(points[1].x, points[1].y, { steps: 8 });
  await page.mouse.up();
}

/** Sets something up on the skin, by touch where there is a touch screen; how many taps that took. */
async function setUp(page: Page, name: string, hasTouch: boolean): Promise<number> {
  let taps = 0;
  const press = async (target: Locator) => {
    await (hasTouch ? target.tap() : target.click());
    taps++;
  };
  await press(page.getByRole('button', { name: 'Add a material', exact: true }).last());
  await press(page.getByRole('radio', { name: 'Skin', exact: true }));
  await press(page.getByRole('button', { name, exact: true }));
  await expect(page.getByRole('button', { name: `Undo: Add ${name[0].toLowerCase()}${name.slice(1)}` })).toBeEnabled({ timeout: FINDING });
  await settled(page);
  return taps;
}

test('skin gets its grain back in three taps, every part can be changed, and the export equals the command line’s', async ({ page, hasTouch }) => {
  test.setTimeout(180_000);
  const photo = await portrait();
  await openPhoto(page, photo);
  await settled(page);
  const away = await look(page, 0.05, 0.1, 3);
  expect(await setUp(page, 'Give the skin its grain back', hasTouch)).toBe(3);
  await expect(page.getByText(/^Skin grain · overlay$/).first()).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Strength' }).first()).toHaveValue('0.8');
  expect(apart(await look(page, 0.05, 0.1, 3), away)).toBeLessThan(4);
  await facet(page, 'Surface');
  for (const step of ['Relief', 'Follow the form', 'Follow the focus'])
    await expect(page.getByRole('heading', { name: new RegExp(`^${step}`) })).toBeVisible();
  await facet(page, 'Mask');
  await expect(page.getByRole('heading', { name: /^Contour fade/ })).toBeVisible();
  await settled(page);
  const { mean, most } = await againstCommandLine(page, photo);
  expect(mean).toBeLessThan(0.5);
  expect(most).toBeLessThan(24);
});

test(
  'cracks on the skin in three taps: the net in the face’s light with the original colours over it, by touch, undone in one step',
  { tag: '@phone' },
  async ({ page }) => {
    test.setTimeout(180_000);
    const photo = await portrait();
    await openPhoto(page, photo);
    await settled(page);
    expect(await setUp(page, 'Cracks on the skin', true)).toBe(3);
    await toRail(page);
    await expect(page.getByTestId('card-0')).toHaveAccessibleName(/Cracks on the skin · hard light/);
    await expect(page.getByTestId('card-1')).toHaveAccessibleName(/Original colours · overlay/);
    expect((await againstCommandLine(page, photo)).mean).toBeLessThan(0.5);
    await toRail(page);
    await page.getByRole('button', { name: 'Undo: Add cracks on the skin' }).click();
    await expect(page.getByTestId('card-0')).toHaveCount(0);
  },
);

test('without a face there is no skin: it says so and nothing changes', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, 'demo/photos/lamp-and-lemons.jpg');
  await settled(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('radio', { name: 'Skin', exact: true }).click();
  await page.getByRole('button', { name: 'Give the skin its grain back' }).click();
  await expect(page.getByText(/^No face was found, so there is no skin to put it on\./)).toBeVisible({ timeout: FINDING });
  await expect(page.getByTestId('card-0')).toHaveCount(0);
});

test('a texture is moved by hand, seen through meanwhile, kept as a stroke and eased back', async ({ page, hasTouch }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Brick wall');
  await facet(page, 'Surface');
  await page.getByRole('button', { name: 'Nudge by hand' }).click();
  await page.getByRole('switch', { name: 'Move by hand' }).click();
  await expect(page.getByTestId('stroke-line')).toContainText('Pushing Brick wall, 70 %');
  await settled(page);
  const places = Array.from({ length: 40 }, (_, i) => [0.3 + 0.02 * (i % 10), 0.2 + 0.015 * Math.floor(i / 10)] as const);
  const seen = async () => {
    const out: number[] = [];
    for (const [x, y] of places) out.push(...(await look(page, x, y, 1)));
    return out;
  };
  const before = await seen();
  const points: [Place, Place] = [await onPhoto(page, 0.3, 0.22), await onPhoto(page, 0.45, 0.25)];
  await drag(page, points, hasTouch);
  await settled(page);
  expect(apart(await seen(), before)).toBeGreaterThan(6);
  await expect(page.getByRole('button', { name: 'Undo: Push' })).toBeEnabled();
  await page.getByRole('button', { name: 'Remove last stroke' }).click();
  await settled(page);
  expect(apart(await seen(), before)).toBeLessThan(2);
});

test('a pen that is pressed harder pushes a texture further', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Brick wall');
  await facet(page, 'Surface');
  await page.getByRole('button', { name: 'Nudge by hand' }).click();
  await page.getByRole('switch', { name: 'Move by hand' }).click();
  await settled(page);
  const places = Array.from({ length: 12 }, (_, i) => [0.3 + 0.03 * (i % 6), 0.22 + 0.02 * Math.floor(i / 6)] as const);
  const seen = async () => (await Promise.all(places.map(([x, y]) => look(page, x, y, 1)))).flat();
  const before = await seen();
  const points = await Promise.all(Array.from({ length: 12 }, (_, i) => onPhoto(page, 0.3 + 0.012 * i, 0.22 + 0.003 * i)));
  const pushed = async (pressure: number) => {
    await pen(page, points, () => pressure);
    await settled(page);
    const off = apart(await seen(), before);
    await page.getByRole('button', { name: 'Remove last stroke' }).click();
    await settled(page);
    return off;
  };
  const [light, hard] = [await pushed(0.08), await pushed(1)];
  expect(hard).toBeGreaterThan(light + 3);
});

test('the light of a step is an arrow on the picture that is dragged', async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Craquelure');
  await facet(page, 'Surface');
  await page.getByRole('button', { name: 'Light', exact: true }).click();
  await settled(page);
  const handle = page.getByRole('button', { name: 'Where the light comes from' });
  const box = (await handle.boundingBox())!;
  const to = await onPhoto(page, 0.8, 0.5);
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 6 });
  await page.mouse.up();
  await settled(page);
  const from = Number(await page.getByRole('slider', { name: 'Light from' }).last().getAttribute('aria-valuenow'));
  expect(Math.abs(from - 90)).toBeLessThan(8);
  await expect(page.getByRole('button', { name: 'Undo: Light: move the light' })).toBeEnabled();
});

test('a map is another material, one of the common starts, and can be looked at', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Brick wall');
  await facet(page, 'Surface');
  await page.getByRole('button', { name: 'Follow the form', exact: true }).click();
  await settled(page);
  const before = await look(page, 0.5, 0.45, 4);
  await page.getByRole('button', { name: 'Soft folds' }).click();
  await expect(page.getByRole('textbox', { name: 'Horizontal, typed' })).not.toHaveValue('9');
  await page.getByRole('radio', { name: 'Another material or picture' }).click();
  await page.getByRole('button', { name: 'Craquelure', exact: true }).last().click();
  await settled(page);
  await page.getByRole('switch', { name: 'Show the map' }).click();
  await settled(page);
  const [r, g, b] = await look(page, 0.05, 0.05, 4);
  expect(Math.abs(r - g) + Math.abs(g - b)).toBeLessThan(60);
  expect(apart(await look(page, 0.5, 0.45, 4), before)).toBeGreaterThan(4);
});

test('the cut-out of another picture is corrected by strokes where it lies', async ({ page, hasTouch }) => {
  test.setTimeout(120_000);
  await openPhoto(page, 'demo/photos/harbour-wall.jpg');
  await settled(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Own picture' }).click();
  await (await chooser).setFiles('demo/photos/keeper.jpg');
  await settled(page);
  await facet(page, 'Material');
  await page.getByRole('button', { name: 'Cut out its subject' }).click();
  await settled(page);
  const hat: [number, number] = [0.5, 0.2];
  const before = await look(page, ...hat, 3);
  await page.getByRole('switch', { name: 'Correct the cut-out' }).click();
  await page.getByRole('radio', { name: 'Erase', exact: true }).click();
  await expect(page.getByTestId('stroke-line')).toContainText('Erasing from the cut-out');
  const points: [Place, Place] = [await onPhoto(page, 0.46, 0.2), await onPhoto(page, 0.54, 0.2)];
  await drag(page, points, hasTouch);
  await settled(page);
  expect(apart(await look(page, ...hat, 3), before)).toBeGreaterThan(15);
  await page.getByRole('button', { name: 'Remove corrections' }).click();
  await settled(page);
  expect(apart(await look(page, ...hat, 3), before)).toBeLessThan(3);
});
