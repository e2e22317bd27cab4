import sharp from 'sharp';
import { profiledPng, testProfiles } from '@/testing/profiles';
import { embeddedProfile, isTable } from './embeddedProfile';
import { srgbProfile } from './srgbProfile';

const plain = () => sharp({ create: { width: 8, height: 8, channels: 3, background: '#369' } });

describe('the embedded profile of a file', () => {
  it.each(['jpeg', 'png', 'webp'] as const)('is found as libvips has written it: %s', async (kind) => {
    const file = await plain().withIccProfile('p3').toFormat(kind).toBuffer();
    const { icc } = await sharp(file).metadata();
    expect(Buffer.from(embeddedProfile(file) ?? []).equals(icc as Buffer)).toBe(true);
  });
  it('is put together from the segments of a JPEG by their numbers (ICC.1:2022, B.4)', async () => {
    const bare = await plain().jpeg().toBuffer();
    const profile = srgbProfile();
    const part = (number: number, data: Uint8Array) => {
      const head = Buffer.from([0xff, 0xe2, 0, 0, ...Buffer.from('ICC_PROFILE\0'), number, 2]);
      head.writeUInt16BE(head.length - 2 + data.length, 2);
      return Buffer.concat([head, data]);
    };
    const file = Buffer.concat([bare.subarray(0, 2), part(2, profile.subarray(200)), part(1, profile.subarray(0, 200)), bare.subarray(2)]);
    expect(Buffer.from(embeddedProfile(file) ?? []).equals(Buffer.from(profile))).toBe(true);
  });
  it('is nothing where there is none, or it is damaged', async () => {
    expect(embeddedProfile(await plain().png().toBuffer())).toBeNull();
    expect(embeddedProfile(Buffer.from('Dear keeper'))).toBeNull();
    const damaged = Buffer.from(profiledPng(srgbProfile(), 8));
    damaged.fill(0, damaged.indexOf('iCCP') + 10, damaged.indexOf('iCCP') + 60);
    expect(embeddedProfile(damaged)).toBeNull();
  });
  it('says whether it goes by a table', () => {
    expect(Object.entries(testProfiles).map(([name, make]) => [name, isTable(make())])).toEqual([
      ['version 2, matrix', false],
      ['version 4, matrix with curves of two parts', false],
      ['version 2, table', true],
      ['version 4, table', true],
    ]);
    expect(isTable(new Uint8Array(20))).toBe(false);
  });
});
