import { decode as decodePng, encode as encodePng } from 'fast-png';
import { decode as decodeTiff } from 'tiff';
import { gammaChunks, PNG_HEAD } from '../core/files/gamma';
import { isTiff } from '../core/files/tiffHeader';
import type { Machine } from '../core/image/machine';
import { writeTiff } from '../core/files/tiffWriter';
import { isDeep, type Encoding, type FromWorker, type ToWorker } from './protocol';
import { serve } from './worker';

const STRIP = 256;
let bitmap: ImageBitmap | null = null;
/** A picture that the browser does not decode, with as many channels as its file has. */
interface Values {
  data: Uint8Array | Uint16Array;
  channels: number;
  /** 16 bits a channel are wanted. */
  deep: boolean;
}
let values: Values | null = null;

const scope = self as unknown as {
  postMessage(message: FromWorker, transfer: Transferable[]): void;
  onmessage: (event: MessageEvent<ToWorker>) => void;
};

async function decode(file: Blob, deep: boolean): Promise<{ width: number; height: number; deep: boolean }> {
  bitmap?.close();
  bitmap = null;
  values = null;
  if (isTiff(new Uint8Array(await file.slice(0, 4).arrayBuffer()))) {
    const { width, height, ...read } = await readTiff(file);
    values = { ...read, deep: deep && read.data instanceof Uint16Array };
    return { width, height, deep: values.deep };
  }
  if (deep && (await hasSixteenBits(file))) {
    const { width, height, data, channels, iccEmbeddedProfile } = decodePng(await file.arrayBuffer());
    // A profile is converted by the browser, which gives 8 bits.
    if (data instanceof Uint16Array && !iccEmbeddedProfile) {
      values = { data, channels, deep: true };
      return { width, height, deep: true };
    }
  }
  // Orientation from Exif and conversion of an embedded profile to sRGB are the browser's.
  bitmap = await createImageBitmap(await withoutGamma(file), { imageOrientation: 'from-image', premultiplyAlpha: 'none' });
  return { width: bitmap.width, height: bitmap.height, deep: false };
}

/** @throws Error for a kind of TIFF that is not read. */
async function readTiff(file: Blob): Promise<{ width: number; height: number; data: Values['data']; channels: number }> {
  const [{ width, height, data, samplesPerPixel, palette }] = decodeTiff(await file.arrayBuffer(), { pages: [0] });
  if (palette || !(data instanceof Uint8Array || data instanceof Uint16Array) || samplesPerPixel > 4)
    throw new Error('This kind of TIFF is not read.');
  return { width, height, data, channels: samplesPerPixel };
}

/** A PNG without a profile is taken as sRGB, whatever gamma it names. */
async function withoutGamma(file: Blob): Promise<Blob> {
  const chunks = gammaChunks(new Uint8Array(await file.slice(0, PNG_HEAD).arrayBuffer()));
  if (chunks.length === 0) return file;
  const ends = [0, ...chunks.flat(), file.size];
  return new Blob(
    Array.from({ length: ends.length / 2 }, (_, i) => file.slice(ends[2 * i], ends[2 * i + 1])),
    { type: file.type },
  );
}

/** By the PNG's header (3rd ed., §11.2.1). */
async function hasSixteenBits(file: Blob): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, 26).arrayBuffer());
  return head[0] === 0x89 && head[1] === 0x50 && head[24] === 16;
}

/** Grey, grey and alpha, colour, or colour and alpha to RGBA8, or to RGBA16 where that is wanted. */
function placeValues(machine: Machine, at: number, { data, channels, deep }: Values): void {
  const count = (data.length / channels) * 4;
  const out = deep ? new Uint16Array(machine.bytes.buffer, at, count) : machine.bytes.subarray(at, at + count);
  const isHalved = !deep && data instanceof Uint16Array;
  if (channels === 4 && !isHalved) return out.set(data);
  const [most, k] = [deep ? 65535 : 255, isHalved ? 255 / 65535 : 1];
  const green = channels >= 3 ? 1 : 0;
  const blue = channels >= 3 ? 2 : 0;
  const alpha = channels === 2 ? 1 : channels === 4 ? 3 : -1;
  for (let p = 0, q = 0; q < count; p += channels, q += 4) {
    out[q] = data[p] * k + 0.5;
    out[q + 1] = data[p + green] * k + 0.5;
    out[q + 2] = data[p + blue] * k + 0.5;
    out[q + 3] = alpha < 0 ? most : data[p + alpha] * k + 0.5;
  }
}

/** Copies the decoded picture into memory in strips, so that no second whole copy is held. */
function place(machine: Machine, at: number, width: number, height: number): void {
  if (values) {
    placeValues(machine, at, values);
    values = null;
    return;
  }
  if (!bitmap) throw new Error('No picture has been decoded.');
  const canvas = new OffscreenCanvas(width, Math.min(STRIP, height));
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser gives no canvas to a worker.');
  for (let y = 0; y < height; y += STRIP) {
    const rows = Math.min(STRIP, height - y);
    context.clearRect(0, 0, width, STRIP);
    context.drawImage(bitmap, 0, y, width, rows, 0, 0, width, rows);
    machine.bytes.set(context.getImageData(0, 0, width, rows).data, at + y * width * 4);
  }
  bitmap.close();
  bitmap = null;
}

async function encode(pixels: Uint8Array<ArrayBuffer>, width: number, height: number, encoding: Encoding): Promise<Blob> {
  const deep = isDeep(encoding);
  if (deep || encoding.type === 'image/tiff') {
    // A copy: the pixels may lie in shared memory.
    const bytes = pixels.slice();
    const values = deep ? new Uint16Array(bytes.buffer) : bytes;
    const file =
      encoding.type === 'image/tiff'
        ? writeTiff({ pixels: values, width, height })
        : encodePng({ data: values, width, height, channels: 4, depth: 16 });
    return new Blob([file as Uint8Array<ArrayBuffer>], { type: encoding.type });
  }
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser gives no canvas to a worker.');
  if (encoding.type === 'image/jpeg') {
    // JPEG has no alpha: clear parts come out white, as paper would.
    context.fillStyle = '#fff';
    context.fillRect(0, 0, width, height);
  }
  for (let y = 0; y < height; y += STRIP) {
    const rows = Math.min(STRIP, height - y);
    const strip = new ImageData(width, rows);
    strip.data.set(pixels.subarray(y * width * 4, (y + rows) * width * 4));
    context.putImageData(strip, 0, y);
  }
  return canvas.convertToBlob(encoding);
}

/** Size of a picture that the browser does not decode. */
async function sizeOf(file: Blob): Promise<{ width: number; height: number }> {
  const { width, height } = await readTiff(file);
  return { width, height };
}

const handle = serve({ post: (message, transfer = []) => scope.postMessage(message, transfer), decode, place, encode, sizeOf });
scope.onmessage = (event) => handle(event.data);
