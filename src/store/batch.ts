import { create } from 'zustand';
import * as z from 'zod';
import { pieceSchema, recipeSchema, type Recipe } from '../core/piece/schema';
import { Cancelled } from '../engine/stopping';
import { removeKeys, writeTexts } from './database';
import { getEngine } from './engine';
import { encodingOf, sizeFor, taggedPicture } from './export';
import { download, endingOf, fileName, lookAtPicture } from './files';
import { complain } from './notices';
import { holdPicture } from './pictures';
import { layingOf } from './recipes';
import { roomForFiles } from './roomForFiles';
import { exportSchema, type ExportChoice } from './settings';
import { readBatch } from './storage';
import { words } from './words';
import { zipInto } from './zipStream';

const itemSchema = z.object({
  /** The photo's own name. */
  name: z.string(),
  /** Where its result goes, without its ending. */
  result: z.string(),
  state: z.enum(['waiting', 'done', 'failed']),
  /** Why it failed. */
  says: z.string().optional(),
});
const jobSchema = z.object({ look: recipeSchema, as: exportSchema, items: z.array(itemSchema).max(5000) });
export type BatchItem = z.output<typeof itemSchema>;
export type BatchJob = z.output<typeof jobSchema>;

interface BatchState {
  job: BatchJob | null;
  /** What is done now; null while nothing is. */
  running: 'drawing' | 'paused' | null;
  /** Addresses of small pictures of the results, by the item's index. */
  pictures: Record<number, string>;
}

export const useBatch = create<BatchState>(() => ({ job: null, running: null, pictures: {} }));

const RECORD = 'batch';
const room = roomForFiles('batch');
const photoFile = (i: number) => `photo-${i}`;
const resultFile = (i: number) => `result-${i}`;
const thumbFile = (i: number) => `thumb-${i}`;
/** Long side of a small picture, in pixels. */
const THUMB = 240;

let stop: AbortController | null = null;
let current: Promise<void> = Promise.resolve();

/** The folder that results are written into as well, when one was chosen. */
let folder: FileSystemDirectoryHandle | null = null;

const save = (job: BatchJob) => writeTexts({ [RECORD]: JSON.stringify(job) });

/** How many photos are in each state. */
export const countOf = ({ items }: BatchJob, state: BatchItem['state']): number => items.filter((item) => item.state === state).length;

/** Names of the results: `{name}`, `{number}` and `{look}` are filled in, and no two are alike. */
export function resultNames(names: readonly string[], look: string, pattern: string): string[] {
  const digits = Math.max(3, String(names.length).length);
  const taken = new Set<string>();
  return names.map((name, i) => {
    const values: Record<string, string> = { name: name.replace(/\.[a-z0-9]+$/i, ''), number: String(i + 1).padStart(digits, '0'), look };
    const base = fileName((pattern.trim() || '{name}').replace(/\{(name|number|look)\}/g, (_, field: string) => values[field]));
    let result = base;
    for (let n = 2; taken.has(result.toLowerCase()); n++) result = `${base}-${n}`;
    taken.add(result.toLowerCase());
    return result;
  });
}

/** Reads the job that was left when the page was closed. What was done stays done. */
export async function loadBatch(): Promise<void> {
  if (useBatch.getState().job) return;
  const { data } = jobSchema.safeParse(await readBatch());
  if (!data) return;
  useBatch.setState({ job: data });
  for (const [i, item] of data.items.entries()) if (item.state === 'done') await showThumb(i);
}

/** Sets up a job: its photos are copied into the browser's own file system, so that it can be taken up after a crash. */
export async function prepareBatch(files: readonly File[], look: Recipe, as: ExportChoice, pattern: string): Promise<void> {
  await clearBatch();
  const results = resultNames(
    files.map(({ name }) => name),
    look.name,
    pattern,
  );
  for (const [i, file] of files.entries()) await room.write(photoFile(i), file);
  const items = files.map(({ name }, i): BatchItem => ({ name, result: results[i], state: 'waiting' }));
  const job: BatchJob = { look, as, items };
  await save(job);
  useBatch.setState({ job });
}

/** Forgets the job and all of its files. */
export async function clearBatch(): Promise<void> {
  stop?.abort();
  await current;
  Object.values(useBatch.getState().pictures).forEach((url) => URL.revokeObjectURL(url));
  useBatch.setState({ job: null, running: null, pictures: {} });
  folder = null;
  await removeKeys([RECORD]);
  await room.clear();
}

/** Lets the person choose a folder for the results; false when none was chosen. */
export async function chooseFolder(): Promise<boolean> {
  const pick = (globalThis as { showDirectoryPicker?(options: object): Promise<FileSystemDirectoryHandle> }).showDirectoryPicker;
  folder = (await pick?.({ mode: 'readwrite' }).catch(() => null)) ?? null;
  return folder !== null;
}
export const canChooseFolder = (): boolean => 'showDirectoryPicker' in globalThis;

export const pauseBatch = (): void => useBatch.setState(({ running }) => ({ running: running && 'paused' }));
export const stopBatch = (): void => stop?.abort();

/** Does what is not done yet, one photo after another; failures are noted and the rest is done. */
export async function runBatch(): Promise<void> {
  if (stop && !stop.signal.aborted) return void useBatch.setState({ running: 'drawing' });
  // One that was stopped may still be at its last photo.
  await current;
  current = drawAll();
  await current;
}

async function drawAll(): Promise<void> {
  const control = new AbortController();
  stop = control;
  useBatch.setState({ running: 'drawing' });
  try {
    for (let i = 0; i < (useBatch.getState().job?.items.length ?? 0); i++) {
      const { job } = useBatch.getState();
      if (job?.items[i].state !== 'waiting') continue;
      while (useBatch.getState().running === 'paused' && !control.signal.aborted) await new Promise((later) => setTimeout(later, 100));
      if (control.signal.aborted) break;
      const change: Partial<BatchItem> = await one(job, i, control.signal).then(
        () => ({ state: 'done' }),
        (error: Error) => {
          if (error instanceof Cancelled) throw error;
          return { state: 'failed', says: error.message };
        },
      );
      const next = { ...job, items: job.items.map((item, k) => (k === i ? { ...item, ...change } : item)) };
      await save(next);
      useBatch.setState({ job: next });
    }
  } catch (error) {
    if (!(error instanceof Cancelled)) complain(error);
  } finally {
    stop = null;
    useBatch.setState({ running: null });
  }
}

async function one({ look, as, items }: BatchJob, i: number, signal: AbortSignal): Promise<void> {
  const file = await room.read(photoFile(i));
  if (!file) throw new RangeError(words.batch.photoIsGone(items[i].name));
  const { ref, blob } = await lookAtPicture(file, items[i].name);
  holdPicture(ref.key, blob);
  const engine = await getEngine();
  const blank = pieceSchema.parse({ dermatex: 1, id: 'batch', name: items[i].name, created: 0, changed: 0, photo: ref });
  const { edit } = await layingOf(look, blank);
  const piece = edit(blank);
  const size = sizeFor(piece, as.share === 'own' ? as.long : Math.max(ref.width, ref.height) * Number(as.share));
  try {
    const drawn = await engine.export({ piece, ...size, full: as.detail }, encodingOf(as), { signal });
    const made = await taggedPicture(drawn, as.capture ? blob : null, size);
    await room.write(resultFile(i), made);
    await room.write(thumbFile(i), await thumbOf(made, { piece, ...size }));
    if (folder) await writeInto(folder, `${items[i].result}.${endingOf({ type: as.type })}`, made);
  } finally {
    engine.dropPhoto(ref.key);
  }
  await showThumb(i);
}

/** A small picture of a result: reduced by the browser, or drawn where that cannot read the format. */
async function thumbOf(made: Blob, drawing: { piece: Parameters<typeof sizeFor>[0]; width: number; height: number; scale: number }): Promise<Blob> {
  const k = Math.min(1, THUMB / Math.max(drawing.width, drawing.height));
  const [width, height] = [drawing.width, drawing.height].map((side) => Math.max(1, Math.round(side * k)));
  if (made.type === 'image/tiff')
    return (await getEngine()).export({ piece: drawing.piece, width, height, scale: drawing.scale * k }, { type: 'image/jpeg', quality: 0.8 });
  const bitmap = await createImageBitmap(made, { resizeWidth: width, resizeHeight: height, resizeQuality: 'high' });
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
  bitmap.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.8 });
}

async function showThumb(i: number): Promise<void> {
  const file = await room.read(thumbFile(i));
  if (file) useBatch.setState(({ pictures }) => ({ pictures: { ...pictures, [i]: URL.createObjectURL(file) } }));
}

async function writeInto(to: FileSystemDirectoryHandle, name: string, file: Blob): Promise<void> {
  const writer = await (await to.getFileHandle(name, { create: true })).createWritable();
  await writer.write(file);
  await writer.close();
}

/** One result, for looking at it whole. */
export const resultOf = (i: number): Promise<File | null> => room.read(resultFile(i));

/** All results as one zip, which is put together in the browser's own file system. */
export async function saveZip(): Promise<void> {
  const { job } = useBatch.getState();
  if (!job) return;
  const name = 'results.zip';
  async function* results(items: readonly BatchItem[], ending: string) {
    for (const [i, item] of items.entries()) {
      const file = item.state === 'done' ? await room.read(resultFile(i)) : null;
      if (file) yield { name: `${item.result}.${ending}`, file };
    }
  }
  await zipInto(await room.stream(name), results(job.items, endingOf({ type: job.as.type })));
  const file = await room.read(name);
  if (file) download(file.slice(0, file.size, 'application/zip'), `${fileName(job.look.name)}.zip`);
}
