import { apart, arm, expect, facet, lay, look, onPhoto, openPhoto, openSample, paint, portrait, settled, test, toRail, type } from './fixtures';

/** The middle of the lower lip on the sample portrait, in fractions of the photo. */
const LIPS = [0.579, 0.622];

const find = async (page: import('@playwright/test').Page) => {
  await facet(page, 'Guards');
  await page.getByRole('button', { name: 'Find faces and people' }).click();
  await expect(page.getByTestId('region-eyes')).toBeVisible({ timeout: 60_000 });
};

test('faces found, lips eased, and the verdict read', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Craquelure');
  await facet(page, 'Blend');
  await type(page, 'Strength', '100');
  await settled(page);
  await find(page);
  await expect(page.getByTestId('found')).toContainText('1 face found: eyes clean, lips 35 % textured');
  await expect(page.getByTestId('region-eyes')).toContainText('untouched');
  await expect(page.getByRole('textbox', { name: 'Eyes, typed', exact: true })).toHaveValue('100');
  await expect(page.getByRole('textbox', { name: 'Lips, typed', exact: true })).toHaveValue('65');

  // Easing the lips lets the texture in; one tap keeps them.
  const lips = page.getByTestId('region-lips');
  await lips.scrollIntoViewIfNeeded();
  await lips.click();
  const mean = async () => Number(/mean ([\d.]+)/.exec((await page.getByTestId('kept-lips').textContent()) ?? '')?.[1]);
  await page.getByRole('button', { name: 'Details' }).click();
  await expect(page.getByTestId('kept-lips')).toBeVisible();
  const before = await mean();
  await type(page, 'Lips', '0');
  await expect.poll(mean).toBeGreaterThan(before * 1.5);
  await page.getByRole('button', { name: /^Guard / }).click();
  await expect(lips).toContainText(/untouched|hardly touched/);
  await page.getByRole('button', { name: 'Measure exactly' }).click();
  await expect(page.getByText('Measured at the photo’s own pixels.')).toBeVisible({ timeout: 60_000 });

  // In colour over the picture, and where it has changed.
  await page.getByRole('radio', { name: 'Show guards' }).click();
  await settled(page);
  await page.getByRole('radio', { name: 'Show changes' }).click();
  await settled(page);
  const [red, green, blue] = await look(page, 0.1, 0.9);
  expect(Math.max(red, green, blue) - Math.min(red, green, blue)).toBeGreaterThan(30);

  // What was found is kept with the photo: opened again, nothing is looked for.
  const asked: string[] = [];
  page.on('request', (r) => r.url().includes('/finder/') && asked.push(r.url()));
  await page.waitForTimeout(2500);
  await page.reload();
  await settled(page);
  await facet(page, 'Guards');
  await expect(page.getByTestId('found')).toContainText('1 face found');
  expect(asked).toEqual([]);
});

test('a coat that does not respect the guards, and one with amounts of its own', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await find(page);
  await page.getByTestId('region-subject').click();
  await type(page, 'Subject', '100');
  await settled(page);
  const guarded = await look(page, 0.45, 0.75, 20);
  await type(page, 'Guard strength', '0');
  await settled(page);
  expect(apart(await look(page, 0.45, 0.75, 20), guarded)).toBeGreaterThan(1);
  await type(page, 'Guard strength', '100');
  await page.getByRole('switch', { name: 'Own amounts for this coat' }).click();
  await type(page, 'Subject', '0');
  await settled(page);
  expect(apart(await look(page, 0.45, 0.75, 20), guarded)).toBeGreaterThan(1);
  await expect(page.getByRole('button', { name: /Undo: Subject: amount/ })).toBeEnabled();
});

test('a subject by strokes where nobody is, cut out and laid on a material', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, 'demo/photos/lamp-and-lemons.jpg');
  await facet(page, 'Guards');
  await page.getByRole('button', { name: 'Find faces and people' }).click();
  const subject = page.getByTestId('region-subject');
  await expect(subject).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId('found')).toContainText('No face found.');
  await subject.scrollIntoViewIfNeeded();
  await subject.click();
  await page.getByRole('radio', { name: 'Mark subject' }).click();
  await arm(page);
  await expect(page.getByTestId('stroke-line')).toHaveText('Marking the subject');
  await paint(page, [
    [0.5, 0.5],
    [0.55, 0.6],
  ]);
  await page.getByRole('radio', { name: 'Mark background' }).click();
  await paint(page, [
    [0.05, 0.05],
    [0.95, 0.05],
  ]);
  await settled(page);
  await toRail(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: 'Other coats' }).click();
  await page.getByRole('button', { name: 'Solid colour' }).click();
  await facet(page, 'Blend');
  await page.getByRole('button', { name: 'All modes', exact: true }).click();
  await page.getByRole('button', { name: 'Normal', exact: true }).first().click();
  await type(page, 'Strength', '100');
  await facet(page, 'Guards');
  await type(page, 'Guard strength', '0');
  await settled(page);
  const colour = await look(page, 0.5, 0.55);
  await toRail(page);
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: 'Other coats' }).click();
  await page.getByRole('button', { name: 'Cut out the subject' }).click();
  await facet(page, 'Guards');
  await type(page, 'Guard strength', '0');
  await settled(page);
  // The subject stands on the colour; above it there is colour only.
  expect(apart(await look(page, 0.5, 0.55), colour)).toBeGreaterThan(15);
  expect(apart(await look(page, 0.5, 0.04), await look(page, 0.9, 0.04))).toBeLessThan(12);
});

test('by keyboard alone: found, eased, painted nothing, taken back', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await page.getByRole('tab', { name: 'Guards' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Find faces and people' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('region-brows')).toBeVisible({ timeout: 60_000 });
  await page.getByTestId('region-brows').focus();
  await page.keyboard.press('Enter');
  const amount = page.getByRole('slider', { name: 'Brows' });
  await amount.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('textbox', { name: 'Brows, typed' })).toHaveValue('51');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('textbox', { name: 'Brows, typed' })).toHaveValue('50');
});

test.describe('models that are missing or damaged', () => {
  for (const [how, fulfil] of [
    ['missing', { status: 404, body: '' }],
    ['cut short', { status: 200, body: 'short', contentType: 'application/octet-stream' }],
  ] as const) {
    test(`${how}: one sentence, and everything else works`, { tag: '@phone' }, async ({ page }) => {
      await page.route('**/finder/facemesh.bin', (route) => route.fulfill(fulfil));
      await openSample(page, 'The old keeper');
      await facet(page, 'Guards');
      await page.getByRole('button', { name: 'Find faces and people' }).click();
      await expect(page.getByText('The models that find faces and people are missing or damaged here')).toBeVisible({ timeout: 60_000 });
      await expect(page.getByRole('button', { name: 'Find faces and people' })).toBeVisible();
      await facet(page, 'Blend');
      const before = await look(page, 0.1, 0.9, 20);
      await type(page, 'Strength', '0');
      await settled(page);
      expect(apart(await look(page, 0.1, 0.9, 20), before)).toBeGreaterThan(1);
    });
  }
});

test('stopped while it looks, and started again', { tag: '@phone' }, async ({ page }) => {
  let release = () => undefined as void;
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/finder/selfie.bin', async (route) => {
    await held;
    await route.continue().catch(() => undefined);
  });
  await openSample(page, 'The old keeper');
  await facet(page, 'Guards');
  await page.getByRole('button', { name: 'Find faces and people' }).click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  release();
  await page.unroute('**/finder/selfie.bin');
  await find(page);
  await expect(page.getByTestId('found')).toContainText('1 face found');
});

test('a subject cleaned by touch, by a pen and by a mouse', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Raw linen');
  await facet(page, 'Blend');
  await type(page, 'Strength', '100');
  await facet(page, 'Mask');
  await arm(page);
  await type(page, 'Brush strength', '100');
  await page.getByRole('radio', { name: 'Mask alone' }).click();
  await settled(page);
  const at = async (x: number, y: number) => (await look(page, x, y, 3))[0];
  const stroke = async (kind: string, y: number, pressure: number) => {
    const points = await Promise.all([0.3, 0.4, 0.5, 0.6, 0.7].map((x) => onPhoto(page, x, y)));
    await page.evaluate(
      ([list, pointerType, p]) => {
        const place = document.querySelector('[data-testid="picture"]') as HTMLElement;
        place.setPointerCapture = () => undefined;
        const send = (name: string, at: { x: number; y: number }) =>
          place.dispatchEvent(
            new PointerEvent(name, { bubbles: true, pointerId: 9, pointerType, pressure: p, button: 0, buttons: 1, clientX: at.x, clientY: at.y }),
          );
        send('pointerdown', list[0]);
        for (const q of list.slice(1)) send('pointermove', q);
        send('pointerup', list[list.length - 1]);
      },
      [points, kind, pressure] as const,
    );
    await settled(page);
  };
  await stroke('touch', 0.2, 0);
  await stroke('mouse', 0.5, 0.5);
  await stroke('pen', 0.8, 0.3);
  expect(await at(0.5, 0.2)).toBeLessThan(40);
  expect(await at(0.5, 0.5)).toBeLessThan(40);
  // A light pen does less, in a narrower line.
  const pen = await at(0.5, 0.8);
  expect(pen).toBeGreaterThan(60);
  expect(pen).toBeLessThan(250);
});

test('a whole face follows the tone, and something else is kept by a tap', async ({ page }) => {
  await openPhoto(page, await portrait());
  await lay(page, 'Foxed paper');
  await facet(page, 'Blend');
  await type(page, 'Strength', '100');
  await settled(page);
  const textured = await look(page, 0.1, 0.6);
  await find(page);
  const tone = page.getByRole('switch', { name: 'Follow the tone' }).first();
  await expect(tone).not.toBeChecked();
  await page.getByRole('radio', { name: 'Whole face' }).click();
  await expect(tone).toBeChecked();
  await settled(page);
  // One tap to arm, one to keep the corner of the background that is tapped.
  await page.getByRole('button', { name: 'Keep something else: tap it' }).click();
  await page.getByRole('radio', { name: 'The picture' }).click();
  await paint(page, [[0.1, 0.6]]);
  await settled(page);
  await expect(page.getByTestId('region-kept')).toBeVisible();
  expect(apart(await look(page, 0.1, 0.6), textured)).toBeGreaterThan(4);
});

test('lips are taken out and put back by strokes that end at their edges', async ({ page }) => {
  await openPhoto(page, await portrait());
  await find(page);
  await page.getByRole('radio', { name: 'Show guards' }).click();
  const row = page.getByTestId('region-lips');
  await row.scrollIntoViewIfNeeded();
  await row.click();
  await expect(page.getByRole('switch', { name: 'Snap to edges' })).toBeChecked();
  await settled(page);
  const [lips, chin] = [await look(page, LIPS[0], LIPS[1], 3), await look(page, LIPS[0], LIPS[1] + 0.06, 3)];
  await page.getByRole('radio', { name: 'Erase', exact: true }).click();
  await paint(page, [
    [LIPS[0] - 0.03, LIPS[1]],
    [LIPS[0] + 0.03, LIPS[1]],
  ]);
  await settled(page);
  const without = await look(page, LIPS[0], LIPS[1], 3);
  expect(apart(without, lips)).toBeGreaterThan(20);
  await page.getByRole('radio', { name: 'Add', exact: true }).click();
  await paint(page, [[LIPS[0], LIPS[1]]]);
  await settled(page);
  expect(apart(await look(page, LIPS[0], LIPS[1], 3), lips)).toBeLessThan(8);
  expect(apart(await look(page, LIPS[0], LIPS[1] + 0.06, 3), chin)).toBeLessThan(4);
  await expect(page.getByRole('button', { name: /Undo: Paint on a guard/ })).toBeEnabled();
});
