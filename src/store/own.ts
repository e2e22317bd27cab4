import { create } from 'zustand';
import { readPack } from '../core/files/pack';
import { isUneven } from '../core/materials/fitting/even';
import { isNeutral, fittedSize, neutralFitting, type Fitting } from '../core/materials/fitting/schema';
import type { SourceInput } from '../core/piece/edits';
import { getEngine } from './engine';
import { takePicture } from './files';
import { complain, say } from './notices';
import { toBase64 } from './pictures';
import * as storage from './storage';
import { words } from './words';

type Own = storage.OwnMaterial;

interface OwnState {
  list: Own[];
  names: Record<string, string>;
  /** Files that are being brought in. */
  busy: { done: number; total: number } | null;
  refresh(): Promise<void>;
  /** Takes one picture file onto the shelf; a plain border is found and trimmed. */
  add(file: Blob, name: string, more?: Partial<Own>): Promise<Own>;
  change(key: string, change: Partial<Own>): Promise<void>;
  remove(key: string): Promise<void>;
}

/** What an own material is called. */
export const labelOf = ({ label, name }: Own): string => label ?? name.replace(/\.(png|jpe?g|webp|avif|tiff?)$/i, '');
const names = (list: Own[]) => Object.fromEntries(list.map((o) => [o.key, labelOf(o)]));
const THUMB = 320;

/** An own material as the source of a coat. */
export function sourceOf({ key, width, height, fitting }: Own): SourceInput {
  const fits = fitting && !isNeutral(fitting);
  return { kind: 'picture', file: key, ...(fits ? { ...fittedSize(width, height, fitting), fitting } : { width, height }) };
}

/** A small picture of an own material as it is made to fit. */
async function thumbOf(key: string, fitting: Fitting | undefined): Promise<string | undefined> {
  const engine = await getEngine();
  const { pixels, width, height } = await engine.ownPixels(key, fitting, THUMB);
  const canvas = new OffscreenCanvas(width, height);
  const image = new ImageData(width, height);
  image.data.set(pixels);
  canvas.getContext('2d')?.putImageData(image, 0, 0);
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.82 });
  return toBase64(blob);
}

/** The border of a picture as a fitting that trims it; null when it has none. */
export async function borderOf(key: string): Promise<Fitting | null> {
  const found = await (await getEngine()).border(key);
  if (!found) return null;
  const { left, top, right, bottom } = found;
  return { ...neutralFitting, left, top, right, bottom };
}

/** Whether a picture is lit unevenly inside its border. */
async function isLitUnevenly(key: string, fitting: Fitting | undefined): Promise<boolean> {
  const { pixels, width, height } = await (await getEngine()).ownPixels(key, fitting, 96);
  return isUneven({ width, height, pixels: Float32Array.from(pixels, (v) => v / 255) });
}

/** Pictures that the user has imported as materials. */
export const useOwn = create<OwnState>((set, get) => {
  const show = (list: Own[]) => set({ list, names: { ...get().names, ...names(list) } });
  const keep = async (to: (list: Own[]) => Own[]) => show(await storage.changeOwn(to));
  return {
    list: [],
    names: {},
    busy: null,
    async refresh() {
      show(await storage.listOwn());
    },
    async add(file, name, more = {}) {
      const ref = await takePicture(file, name);
      const there = (await storage.listOwn()).find((o) => o.key === ref.key);
      // The same file again: its name and fitting stay as they are.
      if (there) {
        await keep((list) => [there, ...list.filter((o) => o.key !== ref.key)]);
        return there;
      }
      const fitting = more.fitting ?? (await borderOf(ref.key)) ?? undefined;
      const own: Own = {
        ...ref,
        ...more,
        ...(fitting ? { fitting } : {}),
        ...((await isLitUnevenly(ref.key, fitting)) ? { uneven: true } : {}),
        added: Date.now(),
        thumb: await thumbOf(ref.key, fitting),
      };
      await keep((list) => [own, ...list.filter((o) => o.key !== ref.key)]);
      return own;
    },
    async change(key, change) {
      const put = (to: Partial<Own>) => keep((list) => list.map((o) => (o.key === key ? { ...o, ...to } : o)));
      // Set at once, so that a second change made meanwhile builds on this one. The thumbnail follows.
      await put(change);
      const { fitting } = change;
      if (!fitting) return;
      const thumb = await thumbOf(key, fitting);
      const now = get().list.find((o) => o.key === key);
      if (now && JSON.stringify(now.fitting) === JSON.stringify(fitting)) await put({ thumb });
    },
    async remove(key) {
      const gone = (await storage.listOwn()).find((o) => o.key === key);
      await keep((list) => list.filter((o) => o.key !== key));
      const back = () => keep((now) => (gone && !now.some((o) => o.key === key) ? [...now, gone].sort((a, b) => b.added - a.added) : now));
      if (gone)
        say(words.own.deletedFromTheShelf(labelOf(gone)), {
          action: { label: words.own.undo, run: () => void back().catch(complain) },
        });
    },
  };
});

interface Waiting {
  blob: Blob;
  name: string;
  more?: Partial<Own>;
}

let stopped = false;
export const stopBringing = (): void => void (stopped = true);

/** The pictures of a file: itself, or all those of a pack. */
async function unpacked(file: File): Promise<Waiting[]> {
  const name = file.name || words.own.pastedPicturePng;
  if (!/\.zip$/i.test(name)) return [{ blob: file, name }];
  const { pack, pictures } = readPack(new Uint8Array(await file.arrayBuffer()), name);
  return pack.materials.map((m) => ({
    blob: new Blob([pictures.get(m.file) as Uint8Array<ArrayBuffer>]),
    name: m.file.replace(/^.*[/\\]/, ''),
    more: {
      label: m.name,
      family: m.family as Own['family'],
      maker: pack.maker || undefined,
      licence: pack.licence || undefined,
      ...(m.fitting ? { fitting: m.fitting } : {}),
    },
  }));
}

/** Takes picture files and packs onto the shelf, one after another, and says what was done. Bad ones are named; the others are taken all the same. */
export async function bringIn(files: File[]): Promise<Own[]> {
  stopped = false;
  const waiting: Waiting[] = [];
  for (const file of files) await unpacked(file).then((list) => waiting.push(...list), complain);
  const taken: Own[] = [];
  try {
    for (const [done, { blob, name, more }] of waiting.entries()) {
      if (stopped) break;
      useOwn.setState({ busy: { done, total: waiting.length } });
      await useOwn
        .getState()
        .add(blob, name, more)
        .then((own) => taken.push(own), complain);
    }
  } finally {
    useOwn.setState({ busy: null });
  }
  tell(taken, waiting.length);
  return taken;
}

function tell(taken: Own[], wanted: number): void {
  if (taken.length === 0) return;
  const trimmed = taken.filter((o) => o.fitting && (o.fitting.left || o.fitting.top || o.fitting.right || o.fitting.bottom));
  const what = taken.length === 1 ? words.own.addedToTheShelf(labelOf(taken[0])) : words.own.picturesAddedToTheShelf(taken.length);
  const rest = stopped && taken.length < wanted ? words.own.leftOut(wanted - taken.length) : '';
  if (trimmed.length === 0) return say(`${what}${rest}.`);
  const border =
    trimmed.length > 1
      ? words.own.theBordersOfScansAre(trimmed.length)
      : taken.length === 1
        ? words.own.theBorderOfItsScan
        : words.own.theBorderOfAScan;
  const leave = async () => {
    for (const { key, fitting } of trimmed)
      await useOwn.getState().change(key, { fitting: { ...(fitting as Fitting), left: 0, top: 0, right: 0, bottom: 0 } });
  };
  say(`${what}${rest}; ${border}.`, {
    action: { label: trimmed.length === 1 ? words.own.keepTheBorder : words.own.keepTheBorders, run: () => void leave().catch(complain) },
  });
}
