import { expect, settled, test, type Page } from './fixtures';

/** What has the focus: its role and name, as a screen reader says them. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const e = document.activeElement;
    if (!e || e === document.body) return 'nothing';
    return `${e.getAttribute('role') ?? e.tagName.toLowerCase()} ${e.getAttribute('aria-label') ?? e.textContent ?? ''}`;
  });

test('the whole first journey by keys and names alone: the focus is never lost, and what happens is announced', async ({ page }) => {
  test.setTimeout(180_000);
  const isPhone = (page.viewportSize()?.width ?? 0) < 700;
  const press = async (role: 'button' | 'tab', name: string | RegExp) => {
    const control = page.getByRole(role, { name, exact: true }).last();
    await control.focus();
    await control.press('Enter');
  };
  const lands = (name: RegExp) => expect.poll(() => focused(page)).toMatch(name);
  const done = async () => isPhone && press('button', 'Done');
  const says = (text: string | RegExp) => expect(page.getByRole('status').filter({ hasText: text }).first()).toBeVisible();

  await page.goto('/');
  await press('button', /Open the sample The old keeper/);
  await lands(/Craquelure · multiply, 60 %/);
  await expect(page.getByRole('heading', { level: 1, name: /The old keeper/ })).toBeVisible();
  await settled(page);
  await press('button', 'Add a material');
  await lands(isPhone ? /dialog Add a material/ : /Add a material/);
  await press('button', 'Cold-press paper');
  await says('Trying “Cold-press paper”');
  await press('button', 'Use it');
  await lands(isPhone ? /dialog/ : /Add a material/);
  await done();
  await press('tab', 'Blend');
  await press('button', 'Screen');
  await lands(/Screen/);
  await done();
  await press('tab', 'Guards');
  await press('button', 'Find faces and people');
  await expect(page.getByRole('status').filter({ hasText: '1 face found' }).first()).toBeVisible({ timeout: 60_000 });
  await lands(isPhone ? /dialog Guards/ : /tab Guards/);
  await done();
  await press('button', /^Undo: /);
  await lands(/^button (Undo|Redo|Nothing)|heading/);
  await press('button', 'Export');
  await lands(/h1 Export The old keeper|heading Export The old keeper|Export The old keeper/);
  const download = page.waitForEvent('download', { timeout: 60_000 });
  await press('button', 'Save the picture');
  await download;
  await says('The picture is in your downloads.');
  await lands(/Export The old keeper|Save the picture/);
  await press('button', 'Back to the bench');
  await lands(/button Export/);
  await press('button', 'Back to the pieces');
  await lands(/Dermatex/);
});
