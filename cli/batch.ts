import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, rename, stat, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import type { Engine } from '../src/engine/engine';
import { nodeFind } from '../src/engine/finder/node';
import { withEngine } from './engine';
import { decodeFile } from './decode';
import { checkOutputName, readBytes, Refused } from './files';
import { drawLaid, layOn, type Order } from './laying';
import { readOrder, type RenderArguments } from './render';

interface BatchArguments extends Omit<RenderArguments, 'photo'> {
  format?: string;
  name?: string;
  shard?: string;
  workers?: string;
}

/** One photo of a batch: its number in the whole list, counted from 1, and where its result goes. */
interface Job {
  photo: string;
  number: number;
  out: string;
}

const PICTURE = /\.(png|jpe?g|webp|tiff?|avif)$/i;
const FORMATS = ['png', 'jpg', 'webp', 'tif'];
const FIELDS = ['name', 'folder', 'number', 'look'];
/** Where it is noted what each result was made from, beside the results. */
const NOTES = '.dermatex';

/**
 * Lays one recipe on many photos, as many at once as there are cores. A bad file is named and the rest is done. What was made before from the same photo,
 * recipe and settings is not made again, so that a job that broke off is taken up by calling it again.
 *
 * @returns whether all results are there
 */
export async function batch(named: string[], given: BatchArguments): Promise<boolean> {
  const { out, recipe } = given;
  if (!recipe || !out || named.length === 0) throw new Refused('batch needs --recipe, --out and photos.');
  const workers = workersOf(given.workers);
  const order = await readOrder(given);
  const photos = await expanded(named);
  const all = jobsOf(photos, order, given);
  const jobs = shardOf(all, given.shard);
  await mkdir(path.join(out, NOTES), { recursive: true }).catch(() => {
    throw new Refused(`The folder ${out} cannot be made; is there a file of that name?`);
  });
  const settings = await fingerprintOf(order, recipe);
  const queue = jobs.values();
  let [done, kept, failed] = [0, 0, 0];
  const say = (what: string, { number, photo }: Job) => console.log(`${number}/${photos.length} ${path.basename(photo)}: ${what}`);
  const lane = async (engine: Engine) => {
    for (const job of queue) {
      try {
        const note = createHash('sha256')
          .update(settings)
          .update(await readBytes(job.photo))
          .digest('hex');
        if (await isMade(job.out, note)) {
          kept++;
          say('there already', job);
          continue;
        }
        const begun = performance.now();
        await one(engine, order, job);
        await writeNote(job.out, note);
        done++;
        say(`${((performance.now() - begun) / 1000).toFixed(1)} s`, job);
      } catch (error) {
        failed++;
        console.error(`${path.basename(job.photo)}: ${(error as Error).message}`);
      }
    }
  };
  // The workers and the other photos keep all cores busy.
  sharp.concurrency(1);
  const files = new Map<string, string>(order.pictures);
  jobs.forEach(({ photo, number }) => files.set(`photo\0${number}`, photo));
  await withEngine(
    (engine) => ({
      decode: (key, deep) => decodeFile(files.get(key) as string, engine().pool, deep),
      size: workers,
      inPlace: true,
      keeps: false,
      find: nodeFind(),
    }),
    // While one photo is drawn by all workers, others are decoded and encoded.
    (engine) => Promise.all(Array.from({ length: workers }, () => lane(engine))),
  );
  console.log(`${done} made, ${kept} there already, ${failed} failed.`);
  return failed === 0;
}

async function one(engine: Engine, order: Order, { photo, number, out }: Job): Promise<void> {
  const laid = await layOn(order, photo, number);
  try {
    await drawLaid(engine, order, laid, out, true);
  } finally {
    engine.dropPhoto(laid.key);
  }
}

/** The photos that were named, and those in folders that were, by name. @throws Refused for a folder without pictures. */
async function expanded(named: string[]): Promise<string[]> {
  const lists = await Promise.all(
    named.map(async (file) => {
      const isFolder = await stat(file).then(
        (about) => about.isDirectory(),
        () => false,
      );
      if (!isFolder) return [file];
      const inside = (await readdir(file)).filter((name) => PICTURE.test(name)).sort();
      if (inside.length === 0) throw new Refused(`There are no pictures in the folder ${file}.`);
      return inside.map((name) => path.join(file, name));
    }),
  );
  return lists.flat();
}

/** Where each result goes. @throws Refused when two would have the same name. */
function jobsOf(photos: string[], { look, deep }: Order, { out = '', format, name: pattern = '{name}' }: BatchArguments): Job[] {
  if (format !== undefined && !FORMATS.includes(format)) throw new Refused(`--format is ${FORMATS.join(', ')}, not ${format}.`);
  const unknown = [...pattern.matchAll(/\{(.*?)\}/g)].find(([, field]) => !FIELDS.includes(field));
  if (unknown) throw new Refused(`--name may hold ${FIELDS.map((f) => `{${f}}`).join(', ')}, not ${unknown[0]}.`);
  const digits = Math.max(3, String(photos.length).length);
  const taken = new Map<string, string>();
  return photos.map((photo, i) => {
    const { name, ext, dir } = path.parse(photo);
    const values: Record<string, string> = {
      name,
      folder: path.basename(path.resolve(dir)),
      number: String(i + 1).padStart(digits, '0'),
      look: look.name,
    };
    const base = pattern.replace(/\{(.*?)\}/g, (_, field: string) => values[field]).replace(/[/\\:*?"<>|\0]/g, '-');
    const own = FORMATS.includes(ext.slice(1).toLowerCase().replace('jpeg', 'jpg')) ? ext.slice(1) : 'png';
    const result = `${base}.${format ?? (deep && !/^(png|tiff?)$/i.test(own) ? 'png' : own)}`;
    checkOutputName(result, deep);
    const other = taken.get(result.toLowerCase());
    if (other)
      throw new Refused(`${other} and ${photo} would both become ${result}; tell them apart with --name, such as "{folder}-{name}" or "{number}".`);
    taken.set(result.toLowerCase(), photo);
    const file = path.join(out, result);
    if (path.resolve(file) === path.resolve(photo))
      throw new Refused(`${photo} would be replaced by its own result; choose another --out or --name.`);
    return { photo, number: i + 1, out: file };
  });
}

/** The part of a job that this call does: every nth photo. @throws Refused for anything but i/n. */
function shardOf(jobs: Job[], shard?: string): Job[] {
  if (shard === undefined) return jobs;
  const [, part, parts] = /^(\d+)\/(\d+)$/.exec(shard)?.map(Number) ?? [];
  if (!part || !parts || part > parts) throw new Refused(`--shard is a part and how many there are, such as 3/8, not ${shard}.`);
  return jobs.filter(({ number }) => (number - 1) % parts === part - 1);
}

function workersOf(text?: string): number {
  const all = Math.max(1, os.availableParallelism());
  if (text === undefined) return all;
  const count = Number(text);
  if (!Number.isInteger(count) || count < 1 || count > 64) throw new Refused(`--workers is a whole number from 1 to 64, not ${text}.`);
  return count;
}

/** What all results of a batch depend on besides their photos. */
async function fingerprintOf({ pictures, scale, deep, keepsCapture, full }: Order, recipe: string): Promise<string> {
  const hash = createHash('sha256')
    .update(JSON.stringify([scale, deep, keepsCapture, full]))
    .update(await readBytes(recipe));
  for (const [name, file] of pictures) hash.update(name).update(await readBytes(file));
  return hash.digest('hex');
}

const noteOf = (out: string) => path.join(path.dirname(out), NOTES, `${path.basename(out)}.made`);

/** True when a result is there and was made from the same. */
async function isMade(out: string, note: string): Promise<boolean> {
  const [there, noted] = await Promise.all([
    stat(out).then(
      (about) => about.isFile(),
      () => false,
    ),
    readFile(noteOf(out), 'utf8').catch(() => ''),
  ]);
  return there && noted === note;
}

async function writeNote(out: string, note: string): Promise<void> {
  const part = `${noteOf(out)}.part`;
  await writeFile(part, note);
  await rename(part, noteOf(out));
}
