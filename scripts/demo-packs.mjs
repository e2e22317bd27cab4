// Makes the packs of the made-up supplier: our own generators, photographed as a scan would be, with borders and uneven light.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { zipSync, strToU8 } from 'fflate';
import { root } from './run-ts.mjs';

const licence = 'Made up for Dermatex; free to use';
const packs = [
  {
    id: 'net-loft-sheets',
    name: 'Net loft sheets',
    maker: 'Skerry Paper Store',
    says: 'Old sheets from the loft over the boat house, scanned with their dark surround.',
    border: '#0b0a09',
    pictures: [
      ['paper.aged', 31, 'Chart paper', 'paper'],
      ['paper.foxed', 12, 'Log book leaf', 'paper'],
      ['paper.kraft', 5, 'Parcel paper', 'paper'],
    ],
  },
  {
    id: 'slipway-walls',
    name: 'Slipway walls',
    maker: 'Skerry Paper Store',
    says: 'Three walls by the slip, photographed on a grey day.',
    border: null,
    pictures: [
      ['masonry.plaster', 23, 'Lime wall', 'masonry'],
      ['masonry.concrete', 8, 'Quay', 'masonry'],
      ['metal.rust', 14, 'Winch plate', 'wood'],
    ],
  },
  {
    id: 'keepers-linen',
    name: 'The keeper’s linen',
    maker: 'Gull Rock Textures',
    says: 'Cloth from the chest in the watch room, on a white table.',
    border: '#f4f3ef',
    pictures: [
      ['cloth.linen', 6, 'Table cloth', 'cloth'],
      ['cloth.hessian', 9, 'Coal sack', 'cloth'],
      ['cloth.twill', 3, 'Jacket', 'cloth'],
    ],
  },
];

const out = path.join(root, 'demo/supplier');
const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-packs-'));
mkdirSync(out, { recursive: true });
const [W, H] = [1200, 900];
const catalogue = [];
for (const { id, name, maker, says, border, pictures } of packs) {
  const files = {};
  const materials = [];
  const small = [];
  for (const [material, seed, title, family] of pictures) {
    const png = path.join(folder, `${id}-${seed}.png`);
    const cli = path.join(root, 'scripts/dermatex.mjs');
    execFileSync(process.execPath, [cli, 'material', material, '--seed', String(seed), '--size', `${W}x${W}`, '--out', png], { stdio: 'ignore' });
    // Light that falls off towards one corner, as under a single lamp.
    const light = new TextEncoder().encode(
      `<svg width="${W}" height="${H}"><defs><radialGradient id="g" cx=".35" cy=".3" r=".95"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#a9a6a2"/></radialGradient></defs><rect width="100%" height="100%" fill="url(#g)"/></svg>`,
    );
    let image = sharp(png)
      .extract({ left: 0, top: 0, width: W, height: H })
      .composite([{ input: light, blend: 'multiply' }]);
    if (border) image = sharp(await image.png().toBuffer()).extend({ top: 14, bottom: 22, left: 18, right: 11, background: border });
    const bytes = await image.jpeg({ quality: 80 }).toBuffer();
    const file = `${title.toLowerCase().replace(/[^a-z]+/g, '-')}.jpg`;
    files[file] = [bytes, { level: 0, mtime: '2026-01-01T00:00:00' }];
    materials.push({ file, name: title, family });
    small.push(await sharp(bytes).resize(280, 280).toBuffer());
  }
  const list = { dermatex: 1, name, maker, licence, materials };
  const zip = zipSync({ 'pack.json': [strToU8(JSON.stringify(list, null, 2)), { mtime: '2026-01-01T00:00:00' }], ...files });
  writeFileSync(path.join(out, `${id}.zip`), zip);
  await sharp({ create: { width: 840, height: 280, channels: 3, background: '#808080' } })
    .composite(small.map((input, i) => ({ input, left: i * 280, top: 0 })))
    .jpeg({ quality: 80 })
    .toFile(path.join(out, `${id}.jpg`));
  catalogue.push({ id, name, maker, licence, says, pictures: pictures.length, bytes: zip.length });
}
writeFileSync(path.join(out, 'catalogue.json'), `${JSON.stringify({ packs: catalogue }, null, 2)}\n`);
