import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync, existsSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { strToU8, zipSync } from 'fflate';
import { run } from '../cli/run';
import { BadFile } from '../src/core/files/inspect';
import { readPack } from '../src/core/files/pack';
import { damaged, oddJson } from './mutate';
import { expectSentence, tally, type Tally } from './tally';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dermatex-recipes-'));

/** Runs a command of the command line; what it says on the error stream is kept to itself. */
async function quietly(args: string[]): Promise<{ status: number; said: string }> {
  const { log, error } = console;
  const said: string[] = [];
  console.log = () => undefined;
  console.error = (text: unknown) => void said.push(String(text));
  try {
    return { status: await run(args), said: said.join('\n') };
  } finally {
    Object.assign(console, { log, error });
  }
}

/** Odd recipes: `check` and `render` agree on each, and refuse in one line. */
export async function oddRecipes(count: number, random: () => number, root: string): Promise<Tally> {
  await sharp({ create: { width: 48, height: 36, channels: 3, background: '#887766' } })
    .png()
    .toFile(path.join(folder, 'photo.png'));
  const pieces = path.join(root, 'dist/demo/pieces');
  const good = readdirSync(pieces)
    .filter((name) => name.endsWith('.json'))
    .map((name) => JSON.parse(readFileSync(path.join(pieces, name), 'utf8')) as { coats: { source: { file?: string } }[] });
  for (const name of new Set(good.flatMap((r) => r.coats.flatMap((c) => c.source.file ?? []))))
    await sharp({ create: { width: 30, height: 30, channels: 3, background: '#445566' } })
      .toFormat(/\.jpe?g$/i.test(name) ? 'jpeg' : 'png')
      .toFile(path.join(folder, path.basename(name)));
  const recipe = path.join(folder, 'odd.json');
  const out = path.join(folder, 'out.png');
  return tally(
    'odd recipes, check and render',
    Array.from({ length: count }, (_, i) => [
      `recipe ${i}`,
      async () => {
        const text = JSON.stringify(oddJson(good[i % good.length], random));
        writeFileSync(recipe, random() < 0.1 ? text.slice(0, Math.floor(text.length * random())) : text);
        rmSync(out, { force: true });
        const checked = await quietly(['check', recipe]);
        const rendered = await quietly(['render', '--photo', path.join(folder, 'photo.png'), '--recipe', recipe, '--out', out]);
        for (const { status, said } of [checked, rendered]) {
          if (status === 1) throw new Error(`a trace instead of a sentence: ${said}; recipe ${text.slice(0, 2000)}`);
          if (status === 2) expectSentence(said);
        }
        if (checked.status !== rendered.status)
          throw new Error(`check says ${checked.status} (${checked.said}), render ${rendered.status} (${rendered.said})`);
        if ((rendered.status === 0) !== existsSync(out)) throw new Error('the file and the exit code disagree');
      },
    ]),
  );
}

/** Damaged and hostile packs: each is taken whole, or refused in one sentence. */
export async function oddPacks(count: number, random: () => number): Promise<Tally> {
  const picture = new Uint8Array(
    await sharp({ create: { width: 40, height: 30, channels: 3, background: '#776655' } })
      .png()
      .toBuffer(),
  );
  const list = strToU8(JSON.stringify({ dermatex: 1, name: 'A pack', materials: [{ file: 'a.png', name: 'A' }] }));
  const zips = [
    zipSync({ 'pack.json': list, 'a.png': picture }),
    zipSync({ 'a.png': picture, 'b.png': picture }, { level: 0 }),
    zipSync({ '../a.png': picture }),
    zipSync({ 'pack.json': strToU8('{"dermatex":1}'), 'a.png': picture }),
    zipSync({ 'a.png': new Uint8Array(5e6) }),
  ].map((zip) => Buffer.from(zip));
  return tally(
    'damaged packs',
    Array.from({ length: count }, (_, i) => [
      `pack ${i}`,
      () => {
        const bytes = i < zips.length ? zips[i] : damaged(zips[i % zips.length], random);
        try {
          const { pictures } = readPack(bytes, 'odd.zip');
          for (const [name, content] of pictures)
            if (/^a|b\.png$/.test(name) && !Buffer.from(content).equals(Buffer.from(picture)))
              throw new Error(`${name} differs from what was packed`);
        } catch (error) {
          if (!(error instanceof BadFile)) throw error;
          expectSentence(error);
        }
      },
    ]),
  );
}
