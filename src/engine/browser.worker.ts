import { decode as decodePng } from 'fast-png';
import { gammaChunks, PNG_HEAD } from '../core/files/gamma';
import type { Machine } from '../core/image/machine';
import type { Encoding, FromWorker, ToWorker } from './protocol';
import { serve } from './worker';

const STRIP = 256;
let bitmap: ImageBitmap | null = null;
/** A picture of 16 bits, with as many channels as its file has. */
let deepPicture: { data: Uint16Array; channels: number } | null = null;

const scope = self as unknown as {
  postMessage(message: FromWorker, transfer: Transferable[]): void;
  onmessage: (event: MessageEvent<ToWorker>) => void;
};

async function decode(file: Blob, deep: boolean): Promise<{ width: number; height: number; deep: boolean }> {
  bitmap?.close();
  deepPicture = null;
  if (deep && (await hasSixteenBits(file))) {
    const { width, height, data, channels, iccEmbeddedProfile } = decodePng(await file.arrayBuffer());
    // A profile is converted by the browser, which gives 8 bits.
    if (data instanceof Uint16Array && !iccEmbeddedProfile) {
      deepPicture = { data, channels };
      return { width, height, deep: true };
    }
  }
  // Orientation from Exif and conversion of an embedded profile to sRGB are the browser's.
  bitmap = await createImageBitmap(await withoutGamma(file), { imageOrientation: 'from-image', premultiplyAlpha: 'none' });
  return { width: bitmap.width, height: bitmap.height, deep: false };
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

/** Grey, grey and alpha, colour, or colour and alpha to RGBA16. */
function placeDeep(machine: Machine, at: number, { data, channels }: NonNullable<typeof deepPicture>): void {
  const out = new Uint16Array(machine.bytes.buffer, at, (data.length / channels) * 4);
  if (channels === 4) return out.set(data);
  const colours = channels === 3;
  for (let p = 0, q = 0; q < out.length; p += channels, q += 4) {
    out[q] = data[p];
    out[q + 1] = colours ? data[p + 1] : data[p];
    out[q + 2] = colours ? data[p + 2] : data[p];
    out[q + 3] = channels === 2 ? data[p + 1] : 65535;
  }
}

/** Copies the decoded picture into memory in strips, so that no second whole copy is held. */
function place(machine: Machine, at: number, width: number, height: number): void {
  if (deepPicture) {
    placeDeep(machine, at, deepPicture);
    deepPicture = null;
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

const handle = serve({ post: (message, transfer = []) => scope.postMessage(message, transfer), decode, place, encode });
scope.onmessage = (event) => handle(event.data);
