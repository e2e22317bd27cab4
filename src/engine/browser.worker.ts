import type { Machine } from '../core/image/machine';
import type { Encoding, FromWorker, ToWorker } from './protocol';
import { serve } from './worker';

const STRIP = 256;
let bitmap: ImageBitmap | null = null;

const scope = self as unknown as {
  postMessage(message: FromWorker, transfer: Transferable[]): void;
  onmessage: (event: MessageEvent<ToWorker>) => void;
};

async function decode(file: Blob): Promise<{ width: number; height: number }> {
  bitmap?.close();
  // Orientation from Exif and conversion of an embedded profile to sRGB are the browser's.
  bitmap = await createImageBitmap(file, { imageOrientation: 'from-image', premultiplyAlpha: 'none' });
  return { width: bitmap.width, height: bitmap.height };
}

/** Copies the decoded picture into memory in strips, so that no second whole copy is held. */
function place(machine: Machine, at: number, width: number, height: number): void {
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
