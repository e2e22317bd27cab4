import { strFromU8 } from 'fflate';
import { readStack, stackXml, type StackEntry, type StackLayer } from '../core/files/openRaster';
import { BadFile } from '../core/files/inspect';
import { listZip, readEntry, zipSourceOf, type ZipEntry } from '../core/files/zipDirectory';
import { coatName } from '../core/piece/naming';
import { filesOf } from '../core/piece/pictures';
import { DEEPEST, pieceSchema, type Piece } from '../core/piece/schema';
import { pieceSize } from '../core/ready/geometry';
import { layersOf, pictureLayers, type PieceEntry } from '../core/render/layers';
import { Cancelled } from '../engine/stopping';
import { getEngine } from './engine';
import { sizeFor, useExport } from './export';
import { download, endingOf, fileName, takePicture } from './files';
import { newId } from './newId';
import { useOwn } from './own';
import { loadPicture, whilePicturesStay } from './pictures';
import { savePiece } from './records';
import { roomForFiles } from './roomForFiles';
import { useSettings } from './settings';
import { words } from './words';
import { zipInto } from './zipStream';

const MIMETYPE = 'image/openraster';
/** The piece itself and the files that it is made of, which only we read. */
const PIECE = 'dermatex.json';
const SOURCES = 'sources/';
/** The longest side of its small picture, as the specification asks. */
const THUMB = 256;
const room = roomForFiles('layers');

/** Saves a piece as an OpenRaster file: a layer a coat, and all that opens it here again without loss. False when it was stopped. */
export async function saveLayers(piece: Piece, name: string): Promise<boolean> {
  if (useExport.getState().progress !== null) throw new Error(words.export.aPictureIsBeingMade);
  const stop = new AbortController();
  useExport.setState({ progress: 0, stop: () => stop.abort() });
  try {
    await zipInto(await room.stream('piece.ora'), filesOfPiece(piece, stop.signal));
    const file = await room.read('piece.ora');
    if (file) download(file.slice(0, file.size, MIMETYPE), `${fileName(name)}.ora`);
    return true;
  } catch (error) {
    if (error instanceof Cancelled) return false;
    throw error;
  } finally {
    useExport.setState({ progress: null, stop: () => undefined });
  }
}

async function* filesOfPiece(piece: Piece, signal: AbortSignal): AsyncIterable<{ name: string; file: Blob }> {
  const engine = await getEngine();
  const { names } = useOwn.getState();
  const size = pieceSize(piece);
  const layers = layersOf(piece);
  const whole = { piece, ...sizeFor(piece, Math.max(size.width, size.height)), full: useSettings.getState().exportAs.detail };
  // It comes first, so that the kind of file is told by its first bytes.
  yield { name: 'mimetype', file: new Blob([MIMETYPE]) };
  const drawn = pictureLayers(layers);
  const srcOf = (layer: (typeof drawn)[number]) => `data/layer${drawn.indexOf(layer)}.png`;
  for (const [i, layer] of drawn.entries()) {
    useExport.setState({ progress: i / (drawn.length + 1) });
    yield { name: srcOf(layer), file: await engine.export({ ...whole, view: layer.view }, { type: 'image/png' }, { signal }) };
  }
  const listed = (entries: readonly PieceEntry[]): StackEntry[] =>
    entries.map((entry, i) => {
      const { coat, mode, opacity, visible } = entry;
      const named = coat ? coatName(coat, names) : i === 0 ? words.layers.photo : words.layers.allCoats;
      const laid = { name: named, mode, opacity, visible };
      if ('layers' in entry) return { ...laid, isolated: entry.isolated, layers: listed(entry.layers) };
      return { ...laid, name: entry.baked ? words.layers.baked(named) : named, src: srcOf(entry), x: 0, y: 0 };
    });
  yield { name: 'stack.xml', file: new Blob([stackXml(size, listed(layers))]) };
  useExport.setState({ progress: drawn.length / (drawn.length + 1) });
  yield { name: 'mergedimage.png', file: await engine.export(whole, { type: 'image/png' }, { signal }) };
  yield { name: 'Thumbnails/thumbnail.png', file: await engine.export({ piece, ...sizeFor(piece, THUMB) }, { type: 'image/png' }, { signal }) };
  yield { name: PIECE, file: new Blob([JSON.stringify(piece)]) };
  for (const key of new Set([piece.photo.key, ...piece.coats.flatMap(filesOf)])) {
    const file = await loadPicture(key);
    yield { name: `${SOURCES}${key}.${endingOf(file)}`, file };
  }
}

/** Whether a file is an OpenRaster one, by its name. */
export const isLayers = (name: string): boolean => /\.ora$/i.test(name);

/**
 * Opens an OpenRaster file as a new piece: one of ours without loss, any other with a coat a layer.
 * @throws BadFile with one sentence; nothing is kept then
 */
export async function openLayers(file: Blob, name: string): Promise<string> {
  const called = `“${name}”`;
  const source = zipSourceOf(file);
  const entries = new Map((await listZip(source, called)).map((entry) => [entry.name, entry]));
  const read = (entry: ZipEntry) => readEntry(source, entry, called);
  const kind = entries.get('mimetype');
  const list = entries.get('stack.xml');
  if (!list || (kind && strFromU8(await read(kind)).trim() !== MIMETYPE)) throw new BadFile(words.layers.isNone(name));
  return whilePicturesStay(async () => {
    const own = entries.get(PIECE);
    const piece = own ? await ownPiece(await read(own), entries, read) : null;
    const made = piece ?? (await foreignPiece(readStack(strFromU8(await read(list)), called), entries, read, name));
    const now = Date.now();
    const opened = { ...made, id: newId(), created: now, changed: now };
    await savePiece(opened);
    return opened.id;
  });
}

type Entries = Map<string, ZipEntry>;
type Read = (entry: ZipEntry) => Promise<Uint8Array>;

/** A piece of ours, with its files; null when what is there of it is damaged or does not fit, and the layers are read instead. */
async function ownPiece(bytes: Uint8Array, entries: Entries, read: Read): Promise<Piece | null> {
  let data: unknown = null;
  try {
    data = JSON.parse(strFromU8(bytes));
  } catch {
    return null;
  }
  const { data: piece } = pieceSchema.safeParse(data);
  if (!piece) return null;
  for (const key of new Set([piece.photo.key, ...piece.coats.flatMap(filesOf)])) {
    const entry = [...entries.values()].find(({ name }) => name.startsWith(`${SOURCES}${key}.`));
    if (!entry) return null;
    const ref = await takePicture(
      new Blob([(await read(entry)) as Uint8Array<ArrayBuffer>]),
      key === piece.photo.key ? piece.photo.name : entry.name,
      true,
    );
    if (ref.key !== key) return null;
  }
  return piece;
}

/** A piece of somebody else's layers. The lowest one is the photo where it covers all; else the photo is white. */
async function foreignPiece({ width, height, layers }: ReturnType<typeof readStack>, entries: Entries, read: Read, name: string): Promise<Piece> {
  const size = { width, height };
  const [ground, ...above] = layers;
  const base = ground && !('layers' in ground) ? await placed(ground, size, entries, read, name) : null;
  const isGround = base && ground.visible && ground.opacity === 1 && ground.mode === 'normal' && (await isOpaque(base));
  const photo = await takePicture(isGround ? base : await blank(size), `${fileName(name.replace(/\.ora$/i, ''))}.png`);
  const coatOf = async (entry: StackEntry): Promise<object> => {
    const named = entry.name || ('layers' in entry ? words.layers.stack : words.layers.layer);
    const laid = { id: newId(), name: named.slice(0, 200), blend: entry.mode, strength: entry.opacity, visible: entry.visible, guards: 0 };
    if ('layers' in entry) return { ...laid, source: { kind: 'group', isolated: entry.isolated, coats: await coatsOf(entry.layers) } };
    const picture = await takePicture(await placed(entry, size, entries, read, name), `${fileName(named)}.png`);
    return { ...laid, source: { kind: 'picture', file: picture.key, width: picture.width, height: picture.height }, lay: { fit: 'stretch' } };
  };
  const coatsOf = async (layers: readonly StackEntry[]): Promise<object[]> => {
    const coats: object[] = [];
    for (const layer of layers) coats.push(await coatOf(layer));
    return coats;
  };
  const coats = await coatsOf(flattened(isGround ? above : layers));
  const now = Date.now();
  return pieceSchema.parse({ dermatex: 1, id: newId(), name: name.replace(/\.ora$/i, ''), created: now, changed: now, photo, coats });
}

/** Stacks that lie deeper than groups may: their layers take their place, with their opacity and visibility. */
function flattened(entries: readonly StackEntry[], depth = 0): StackEntry[] {
  return entries.flatMap((entry) => {
    if (!('layers' in entry)) return [entry];
    const layers = flattened(entry.layers, depth + 1);
    if (depth < DEEPEST) return [{ ...entry, layers }];
    return layers.map((layer) => ({ ...layer, opacity: layer.opacity * entry.opacity, visible: layer.visible && entry.visible }));
  });
}

/** A layer's picture on a clear sheet of the size of all. @throws BadFile when it is missing or cannot be decoded */
async function placed(
  { src, x, y }: StackLayer,
  { width, height }: { width: number; height: number },
  entries: Entries,
  read: Read,
  name: string,
): Promise<Blob> {
  const entry = entries.get(src);
  if (!entry) throw new BadFile(words.layers.pictureMissing(name, src));
  const bitmap = await createImageBitmap(new Blob([(await read(entry)) as Uint8Array<ArrayBuffer>]), { premultiplyAlpha: 'none' }).catch(() => {
    throw new BadFile(words.layers.pictureDamaged(name, src));
  });
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.drawImage(bitmap, x, y);
  bitmap.close();
  return canvas.convertToBlob({ type: 'image/png' });
}

async function blank({ width, height }: { width: number; height: number }): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (context) {
    context.fillStyle = '#fff';
    context.fillRect(0, 0, width, height);
  }
  return canvas.convertToBlob({ type: 'image/png' });
}

/** Whether a picture covers all of its sheet, seen at a small size. */
async function isOpaque(picture: Blob): Promise<boolean> {
  const bitmap = await createImageBitmap(picture, { resizeWidth: 64, resizeHeight: 64 });
  const canvas = new OffscreenCanvas(64, 64);
  const context = canvas.getContext('2d');
  context?.drawImage(bitmap, 0, 0);
  bitmap.close();
  return context?.getImageData(0, 0, 64, 64).data.every((v, i) => i % 4 < 3 || v === 255) ?? false;
}
