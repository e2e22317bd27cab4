import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { deepValues } from '../src/testing/deepValues';
import { hasTransicc, offTransicc, profiledPng, profiledTiff, testProfiles } from '../src/testing/profiles';
import { expect, openPhoto, settled, test } from './fixtures';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-profiles-'));

for (const [name, make] of Object.entries(testProfiles))
  test(`colours with an embedded profile are converted to sRGB within 1 of CIEDE2000 of littlecms: ${name}`, { tag: '@wide' }, async ({ page }) => {
    test.skip(!hasTransicc(), 'needs transicc of liblcms2-utils');
    const profile = make();
    for (const kind of ['16.tif', '16.png', '8.png']) {
      const photo = path.join(folder, `${name.replace(/\W+/g, '-')}-${kind}`);
      writeFileSync(photo, kind === '16.tif' ? profiledTiff(profile) : profiledPng(profile, kind === '16.png' ? 16 : 8));
      await page.goto('/');
      await openPhoto(page, photo);
      await settled(page);
      await page.getByRole('button', { name: 'Export', exact: true }).click();
      await page.getByRole('radio', { name: 'PNG', exact: true }).click();
      await page.getByRole('radio', { name: '16 bits', exact: true }).click();
      const download = page.waitForEvent('download', { timeout: 120_000 });
      await page.getByRole('button', { name: 'Save the picture' }).click();
      const out = `${photo}.out.png`;
      await (await download).saveAs(out);
      const off = offTransicc(photo, profile, kind === '8.png' ? 8 : 16, await deepValues(out));
      console.log(`${name}, ${kind}: ${off.toFixed(3)}`);
      expect(off, kind).toBeLessThan(1);
    }
  });
