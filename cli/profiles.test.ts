import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { deepValues } from '@/testing/deepValues';
import { hasTransicc, offTransicc, profiledPng, profiledTiff, testProfiles } from '@/testing/profiles';
import { runHere } from './testing';

jest.setTimeout(60_000);

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-profiles-'));
const file = (name: string) => path.join(folder, name);
const checked = hasTransicc() ? it : it.skip;

describe('an embedded profile is converted to sRGB as littlecms does it (Debian liblcms2-utils), on two hundred colours within 1 of CIEDE2000', () => {
  const cases = Object.keys(testProfiles).flatMap((name) => ['16.tif', '16.png', '8.png'].map((kind) => [name, kind] as const));
  checked.each(cases)('%s, %s', async (name, kind) => {
    const profile = testProfiles[name]();
    const photo = file(`${name}-${kind}`);
    writeFileSync(photo, kind === '16.tif' ? profiledTiff(profile) : profiledPng(profile, kind === '16.png' ? 16 : 8));
    writeFileSync(file('nothing.json'), JSON.stringify({ dermatex: 1, name: 'Nothing', coats: [] }));
    const out = file('out.png');
    const { status, err } = await runHere(['render', '--photo', photo, '--recipe', file('nothing.json'), '--out', out, '--bits', '16']);
    expect([status, err]).toEqual([0, '']);
    expect(offTransicc(photo, profile, kind === '8.png' ? 8 : 16, await deepValues(out))).toBeLessThan(1);
  });
});
