import { apart, expect, facet, finger, lay, look, openPhoto, openSample, portrait, settled, test, toRail, type Page } from './fixtures';

/** Presses by touch, counted. */
class Hand {
  taps = 0;
  constructor(private readonly page: Page) {}
  async tap(role: 'button' | 'tab' | 'switch' | 'radio', name: string | RegExp, exact = true): Promise<void> {
    const target = this.page.getByRole(role, { name, exact }).last();
    await target.scrollIntoViewIfNeeded();
    await target.tap();
    this.taps++;
  }
}

const values = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLInputElement>('input[type="range"], [role="slider"], [role="switch"], [role="radio"]')].map((e) =>
      [e.getAttribute('aria-label'), e.value, e.getAttribute('aria-valuenow'), e.checked, e.getAttribute('aria-checked')].join(),
    ),
  );

test('a swipe up over every control of every tab changes no value', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  const swipeAll = async (tabs: string[]) => {
    for (const name of tabs) {
      await facet(page, name);
      await page.waitForTimeout(300);
      const before = await values(page);
      expect(before.length, name).toBeGreaterThan(0);
      const controls = page.locator('input[type="range"], [role="slider"]:not(input), [role="switch"], [role="radio"], [data-testid^="curve-"]');
      const undo = await page.getByRole('button', { name: /^(Undo|Nothing to undo)/ }).getAttribute('aria-label');
      // The controls of a tab are alike: about five of them, from the first to the last.
      const count = await controls.count();
      for (let i = 0; i < count; i += Math.max(1, Math.floor(count / 5))) {
        const control = controls.nth(i);
        await control.scrollIntoViewIfNeeded({ timeout: 1000 }).catch(() => undefined);
        const box = await control.boundingBox();
        if (!box || box.y < 380 || box.y > 780) continue;
        const [x, y] = [box.x + box.width * 0.6, box.y + box.height / 2];
        await finger(page, [
          { x, y },
          { x: x + 3, y: y - 60 },
          { x: x + 6, y: y - 160 },
        ]);
      }
      expect(await values(page), name).toEqual(before);
      expect(await page.getByRole('button', { name: /^(Undo|Nothing to undo)/ }).getAttribute('aria-label'), name).toBe(undo);
    }
  };
  await swipeAll(['Blend', 'Material', 'Place', 'Tone', 'Mask', 'More']);
  await toRail(page);
  await page.getByTestId('card-photo').tap();
  await swipeAll(['Crop', 'Spots', 'Light', 'Colour', 'Detail']);
});

test('painting is armed by a switch only, and ends with its tab', { tag: '@phone' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await facet(page, 'Mask');
  await expect(page.getByTestId('stroke-line')).toHaveText('Drag to pan');
  const box = (await page.getByTestId('picture').boundingBox())!;
  const stroke = () =>
    finger(page, [
      { x: box.x + box.width * 0.4, y: box.y + box.height * 0.5 },
      { x: box.x + box.width * 0.6, y: box.y + box.height * 0.5 },
    ]);
  await stroke();
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeVisible();
  // As long as a hand needs from the picture to the switch: a tap within the same moment only ends the swipe.
  await page.waitForTimeout(700);
  await page.getByRole('switch', { name: 'Paint' }).tap();
  await expect(page.getByTestId('stroke-line')).toContainText('Erasing Craquelure');
  await stroke();
  await expect(page.getByRole('button', { name: 'Undo: Erase' })).toBeVisible();
  await facet(page, 'Tone');
  await facet(page, 'Mask');
  await expect(page.getByRole('switch', { name: 'Paint' })).not.toBeChecked();
});

test('a deleted piece comes back by Undo, and from the list of deleted ones', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await page.getByRole('button', { name: 'Back to the pieces' }).tap();
  await expect(page.getByTestId('piece-card')).toHaveCount(1);
  await page.getByRole('button', { name: 'Delete', exact: true }).tap();
  await expect(page.getByTestId('piece-card')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo', exact: true }).tap();
  await expect(page.getByTestId('piece-card')).toHaveCount(1);
  await page.getByRole('button', { name: 'Delete', exact: true }).tap();
  await page.getByRole('button', { name: 'Deleted (1)' }).tap();
  await page.getByRole('button', { name: /^Restore / }).tap();
  await page
    .getByTestId('piece-card')
    .getByRole('button', { name: /^Open / })
    .tap();
  await settled(page);
});

test('old paper with the face kept, exported: at most nine taps', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  const hand = new Hand(page);
  await hand.tap('button', 'Add a material');
  await hand.tap('button', 'Aged, stained paper');
  await hand.tap('button', 'Use it');
  await hand.tap('tab', 'Guards');
  await hand.tap('button', 'Find faces and people');
  await expect(page.getByTestId('found')).toContainText('1 face found', { timeout: 60_000 });
  await hand.tap('button', 'Export');
  const picture = page.waitForEvent('download', { timeout: 60_000 });
  await hand.tap('button', 'Save the picture');
  expect((await picture).suggestedFilename()).toMatch(/\.(jpg|png)$/);
  expect(hand.taps).toBeLessThanOrEqual(9);
});

test('only the cracks, brown, raised, following the form: at most ten taps', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await settled(page);
  const levels = () =>
    page.evaluate(() => {
      const canvas = document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement;
      return [...canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height).data];
    });
  const before = await levels();
  const hand = new Hand(page);
  await hand.tap('button', 'Add a material');
  await hand.tap('radio', 'Cracks');
  await hand.tap('button', 'Craquelure');
  await hand.tap('button', 'Use it');
  await hand.tap('switch', 'Follow the form');
  for (const name of ['Only the cracks', 'Raised']) await expect(page.getByRole('switch', { name })).toBeChecked();
  await expect(page.getByRole('button', { name: 'Colour: Brown' })).toHaveAttribute('aria-pressed', 'true');
  await settled(page);
  const after = await levels();
  // Most of the ground is as it was, and what has become much darker is brown.
  let [same, dark, red, blue] = [0, 0, 0, 0];
  for (let p = 0; p < after.length; p += 4) {
    const darker = before[p + 1] - after[p + 1];
    if (Math.abs(darker) <= 2) same++;
    if (darker < 40) continue;
    dark++;
    red += after[p];
    blue += after[p + 2];
  }
  expect(same / (after.length / 4)).toBeGreaterThan(0.5);
  expect(dark / (after.length / 4)).toBeGreaterThan(0.005);
  expect(red).toBeGreaterThan(blue * 1.2);
  expect(hand.taps).toBeLessThanOrEqual(10);
});

test('vignette and grain: at most six taps', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  const corner = () =>
    page.evaluate(() => {
      const canvas = document.querySelector('[data-testid="picture"] canvas') as HTMLCanvasElement;
      const mean = (x: number, y: number) => {
        const { data } = canvas.getContext('2d')!.getImageData(x, y, 12, 12);
        return data.reduce((sum, v, i) => (i % 4 < 3 ? sum + v : sum), 0) / (12 * 12 * 3);
      };
      return { corner: mean(4, 4), middle: mean(canvas.width >> 1, canvas.height >> 1) };
    });
  await settled(page);
  const before = await corner();
  const hand = new Hand(page);
  for (const coat of ['Vignette', 'Grain']) {
    await hand.tap('button', 'Add a material');
    await hand.tap('button', 'Other coats');
    await hand.tap('button', coat);
    await settled(page);
  }
  const after = await corner();
  expect(after.corner).toBeLessThan(before.corner * 0.8);
  expect(Math.abs(after.middle - before.middle)).toBeLessThan(6);
  await expect(page.getByTestId('card-0')).toContainText('Vignette');
  await expect(page.getByTestId('card-1')).toContainText('Grain');
  expect(hand.taps).toBeLessThanOrEqual(6);
});

test('black and white with a fifth of the old colours: at most six taps', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  const hand = new Hand(page);
  await hand.tap('button', 'Add a material');
  await hand.tap('button', 'Other coats');
  await hand.tap('button', 'Adjustment');
  await hand.tap('button', 'Black and white');
  const strength = page.getByRole('textbox', { name: 'Strength, typed', exact: true }).last();
  await strength.tap();
  hand.taps++;
  await strength.fill('80');
  await strength.press('Enter');
  await settled(page);
  await expect(strength).toHaveValue('80');
  expect(hand.taps).toBeLessThanOrEqual(6);
});

test('the trade’s words find what does it: vignette among the coats, dust and grunge among the materials', { tag: '@wide' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: 'Search materials' }).click();
  const find = page.getByRole('textbox', { name: 'Find a material' });
  for (const [word, name] of [
    ['vignette', 'Vignette'],
    ['grunge', 'Flaking paint'],
    ['dust', 'Scratches and dust'],
    ['sepia', 'Solid colour'],
    ['black and white', 'Adjustment'],
    ['old', 'Aged, stained paper'],
  ]) {
    await find.fill(word);
    await expect(page.getByRole('button', { name, exact: true }).first(), word).toBeVisible();
  }
});

test('a look is tried and used, saved as one’s own, and on another photo in at most four taps', { tag: '@phone' }, async ({ page }) => {
  await openPhoto(page, await portrait());
  await settled(page);
  const hand = new Hand(page);
  await hand.tap('button', 'Start from a look');
  await expect(page.getByRole('button', { name: 'Stained sheet' })).toHaveAttribute('data-drawn', 'fine', { timeout: 60_000 });
  // The sheet is dark along its edges, whatever stains it has.
  const before = await look(page, 0.5, 0.03);
  await hand.tap('button', 'Stained sheet');
  await expect(page.getByTestId('stroke-line')).toHaveText('Trying “Stained sheet”');
  await expect.poll(async () => apart(await look(page, 0.5, 0.03), before)).toBeGreaterThan(4);
  await hand.tap('button', 'Raw linen');
  await expect(page.getByTestId('stroke-line')).toHaveText('Trying “Raw linen”');
  await hand.tap('button', 'Use it');
  await expect(page.getByTestId('card-0')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Undo: Look Raw linen' })).toBeVisible();
  // Another look takes the place of the last one.
  await page.getByTestId('card-photo').tap();
  await facet(page, 'Presets');
  await page.getByRole('button', { name: 'Old glaze' }).tap();
  await page.getByRole('button', { name: 'Old glaze' }).tap();
  await expect(page.getByTestId('card-4')).toBeVisible();
  await expect(page.getByTestId('card-5')).toHaveCount(0);
  await page.getByTestId('card-photo').tap();
  await facet(page, 'Presets');
  await page.getByRole('button', { name: 'Your looks' }).tap();
  await page.getByRole('textbox', { name: 'Name of the look' }).fill('North window');
  await page.getByRole('button', { name: 'Save as look' }).tap();
  await expect(page.getByText('“North window” saved as a look.')).toBeVisible();
  await toRail(page);
  await page.getByRole('button', { name: 'Back to the pieces' }).tap();
  await openPhoto(page, 'demo/photos/signal-officer.jpg');
  const again = new Hand(page);
  await again.tap('button', 'Start from a look');
  await again.tap('button', 'North window');
  await again.tap('button', 'Use it');
  await expect(page.getByTestId('card-4')).toBeVisible();
  await settled(page);
  expect(again.taps).toBeLessThanOrEqual(4);
});

test('three hints, dismissed for good; the guide with its pictures and keys', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/?hints');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Open a photo' }).click();
  await (await chooser).setFiles(await portrait());
  await settled(page);
  await expect(page.getByRole('note')).toContainText('Coats lie over the photo like sheets');
  await page.getByRole('button', { name: 'Got it' }).tap();
  await expect(page.getByRole('note')).toHaveCount(0);
  await page.reload();
  await settled(page);
  await expect(page.getByRole('note')).toHaveCount(0);
  await lay(page, 'Craquelure');
  await toRail(page);
  for (const text of ['Tap a card', 'Guards keep eyes']) {
    await expect(page.getByRole('note')).toContainText(text);
    await page.getByRole('button', { name: 'Got it' }).tap();
  }
  await expect(page.getByRole('note')).toHaveCount(0);
  await facet(page, 'More');
  await page.getByRole('button', { name: 'Help' }).tap();
  await expect(page.getByRole('heading', { name: '4. Keep the face' })).toBeVisible();
  const picture = page.getByRole('img', { name: /^Guards on a phone/ });
  await picture.scrollIntoViewIfNeeded();
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
  await expect(page.getByText('Brush smaller, larger').last()).toBeVisible();
  await page.getByRole('button', { name: 'Back', exact: true }).last().tap();
  await settled(page);
});

test('a coat is hidden by its eye, held for the piece up to it, and has its actions under the right button', { tag: '@wide' }, async ({ page }) => {
  await openSample(page, 'The old keeper');
  await settled(page);
  const whole = await look(page, 0.15, 0.15, 30);
  await page.getByRole('button', { name: /^Hide Craquelure/ }).click();
  await expect(page.getByTestId('card-1')).toHaveAccessibleName(/hidden$/);
  await expect(page.getByRole('button', { name: 'Undo: Hide the coat' })).toBeEnabled();
  await page.getByRole('button', { name: /^Show Craquelure/ }).click();
  await settled(page);
  const card = (await page.getByTestId('card-0').boundingBox())!;
  await page.mouse.move(card.x + 50, card.y + 40);
  await page.mouse.down();
  await page.waitForTimeout(700);
  await settled(page);
  const upTo = await look(page, 0.15, 0.15, 30);
  await page.mouse.up();
  await settled(page);
  expect(apart(await look(page, 0.15, 0.15, 30), whole)).toBeLessThan(1);
  expect(apart(upTo, whole)).toBeGreaterThan(0.5);
  await page.getByTestId('card-0').click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByTestId('card-2')).toBeVisible();
});

test(
  'the photo’s tabs show the photo, unless the coats are switched on; Photo stays from one tap to the next',
  { tag: '@wide' },
  async ({ page }) => {
    await openSample(page, 'The old keeper');
    await settled(page);
    const piece = await look(page, 0.1, 0.1, 20);
    const photoTab = page.getByRole('button', { name: 'Photo', exact: true });
    await photoTab.click();
    await settled(page);
    const photo = await look(page, 0.1, 0.1, 20);
    expect(apart(photo, piece)).toBeGreaterThan(10);
    await photoTab.click();
    await settled(page);
    expect(apart(await look(page, 0.1, 0.1, 20), piece)).toBeLessThan(1);
    await page.getByTestId('card-photo').click();
    await facet(page, 'Light');
    await settled(page);
    expect(apart(await look(page, 0.1, 0.1, 20), photo)).toBeLessThan(1);
    await page.getByRole('switch', { name: 'Show coats' }).click();
    await settled(page);
    expect(apart(await look(page, 0.1, 0.1, 20), piece)).toBeLessThan(1);
  },
);
