import { rename } from '../faults/pageFaults';
import sharp from 'sharp';
import { expect, openPhoto, portrait, test, toRail } from './fixtures';

async function give(page: import('@playwright/test').Page, name: string, buffer: Buffer) {
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Open a photo' }).click();
  await (await chooser).setFiles({ name, mimeType: 'application/octet-stream', buffer });
}

test('a bad file gets one clear sentence and changes nothing', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/');
  const good = await sharp({ create: { width: 200, height: 100, channels: 3, background: '#886644' } })
    .jpeg()
    .toBuffer();
  const huge = await sharp({ create: { width: 20, height: 10, channels: 3, background: '#886644' } })
    .png()
    .toBuffer();
  huge.writeUInt32BE(90000, 16);
  const damaged = await sharp({ create: { width: 200, height: 100, channels: 3, background: '#886644' } })
    .png()
    .toBuffer();
  damaged.fill(7, 60, damaged.length - 20);
  const cases: [string, Buffer, RegExp][] = [
    ['letter.txt', Buffer.from('Dear keeper'), /“letter.txt” is not a PNG, JPEG, WebP, AVIF or TIFF picture/],
    ['half.jpg', good.subarray(0, good.length / 2), /“half.jpg” is cut short/],
    ['huge.png', huge, /sides of up to 30000 pixels can be opened/],
    ['shot.cr2', Buffer.from('II*\0raw'), /“shot.cr2” is a camera’s raw file/],
    ['damaged.png', damaged, /“damaged.png” (cannot be decoded|is cut short|cannot be read)/],
    ['empty.jpg', Buffer.alloc(0), /“empty.jpg” is empty/],
  ];
  for (const [name, buffer, says] of cases) {
    await give(page, name, buffer);
    await expect(page.getByRole('alert').filter({ hasText: says })).toBeVisible();
  }
  await expect(page).toHaveURL(/localhost:\d+\/$/);
  await expect(page.getByTestId('piece-card')).toHaveCount(0);
});

test('a photo of which a part is missing is told, and opened when one says so', { tag: '@phone' }, async ({ page }) => {
  const whole = await sharp({
    create: { width: 400, height: 300, channels: 3, background: '#884422', noise: { type: 'gaussian', mean: 120, sigma: 40 } },
  })
    .jpeg()
    .toBuffer();
  const torn = Buffer.concat([whole.subarray(0, whole.length / 3), Buffer.from([0xff, 0xd9])]);
  await page.goto('/');
  await give(page, 'torn.jpg', torn);
  await expect(page.getByRole('alert').filter({ hasText: '“torn.jpg” is damaged: a part of its data is missing' })).toBeVisible();
  await expect(page).toHaveURL(/localhost:\d+\/$/);
  await page.screenshot({ path: process.env.SHOTS ? `${process.env.SHOTS}/torn.png` : undefined });
  await page.getByRole('button', { name: 'Open what there is' }).click();
  await expect(page).toHaveURL(/\/piece\//);
});

test('Exif orientation is honoured, and dropped and pasted files open too', { tag: '@wide' }, async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Open a photo' })).toBeEnabled();
  const bytes = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#336699' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
  const send = (event: 'drop' | 'paste') =>
    page.evaluate(
      ([kind, data]) => {
        const transfer = new DataTransfer();
        transfer.items.add(new File([Uint8Array.from(data as number[])], 'turned.jpg', { type: 'image/jpeg' }));
        const init = { bubbles: true, cancelable: true };
        window.dispatchEvent(
          kind === 'drop'
            ? new DragEvent('drop', { ...init, dataTransfer: transfer })
            : new ClipboardEvent('paste', { ...init, clipboardData: transfer }),
        );
      },
      [event, [...bytes]] as const,
    );
  await send('drop');
  await expect(page).toHaveURL(/\/piece\//);
  await page.getByTestId('card-photo').click();
  const more = page.getByRole('button', { name: 'Add a material', exact: true }).first();
  await expect(more).toBeVisible();
  await expect
    .poll(() =>
      page.evaluate(() => {
        const box = document.querySelector('[data-testid="picture"] canvas')!.getBoundingClientRect();
        return box.height > box.width;
      }),
    )
    .toBe(true);
  await page.goto('/');
  await expect(page.getByTestId('piece-card')).toHaveCount(1);
  await send('paste');
  await expect(page).toHaveURL(/\/piece\//);
});

test('a tab closed during or after a change keeps a whole piece', { tag: '@phone' }, async ({ page, context }) => {
  await openPhoto(page, await portrait());
  const url = page.url();
  await rename(page, 'Kept');
  await page.waitForTimeout(2000);
  await rename(page, 'Under way');
  await page.close();
  const next = await context.newPage();
  await next.goto(url);
  await expect(next.getByRole('button', { name: /^(Kept|Under way), rename$/ })).toBeVisible();
});

test('own pictures as materials: brought in, laid, kept', { tag: '@phone' }, async ({ page }) => {
  await page.goto('/materials');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import pictures' }).click();
  await (await chooser).setFiles('demo/photos/sky.jpg');
  await expect(page.getByText('“sky” added to the shelf.')).toBeVisible();
  await openPhoto(page, await portrait());
  await page.getByRole('button', { name: 'Add a material', exact: true }).last().click();
  await page.getByRole('button', { name: 'sky', exact: true }).first().click();
  await page.getByRole('button', { name: 'Use it' }).click();
  await toRail(page);
  await expect(page.getByTestId('card-0')).toHaveAccessibleName(/sky · multiply/);
});

test('the finished picture goes to the clipboard at its full size', { tag: '@wide' }, async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await openPhoto(page, await portrait());
  await page.getByRole('button', { name: 'Export', exact: true }).click();
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByText('The picture is on the clipboard.')).toBeVisible();
  const size = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const bitmap = await createImageBitmap(await item.getType('image/png'));
    return [bitmap.width, bitmap.height];
  });
  expect(size).toEqual([800, 1000]);
});
