import { decode as decodePng, encode as encodePng } from 'fast-png';
import { decode as decodeTiff } from 'tiff';
import { embeddedProfile, isTable } from '../core/files/embeddedProfile';
import { gammaChunks, PNG_HEAD } from '../core/files/gamma';
import { isTiff } from '../core/files/tiffHeader';
import type { Machine } from '../core/image/machine';
import { writeTiff } from '../core/files/tiffWriter';
import { findProfilesAt, openConversion, toSrgb, type Conversion, type Values } from './profiles';
import { isDeep, type Encoding, type FromWorker, type ToWorker } from './protocol';
import { serve } from './worker';

const STRIP = 256;
let bitmap: ImageBitmap | null = null;
/** From the bitmap's own colours to sRGB, where the browser has not converted them. */
let conversion: Conversion | null = null;
/** A picture that the browser does not decode, in sRGB; whether 16 bits a channel are wanted of it. */
let values: (Values & { deep: boolean }) | null = null;

findProfilesAt('/lcms.wasm');

const scope = self as unknown as {
  postMessage(message: FromWorker, transfer: Transferable[]): void;
  onmessage: (event: MessageEvent<ToWorker>) => void;
};

async function decode(file: Blob, deep: boolean): Promise<{ width: number; height: number; deep: boolean }> {
  release();
  values = null;
  if (isTiff(new Uint8Array(await file.slice(0, 4).arrayBuffer()))) {
    const { width, height, profile, ...read } = await readTiff(file);
    values = { ...(profile ? await toSrgb(read, profile) : read), deep: deep && read.data instanceof Uint16Array };
    return { width, height, deep: values.deep };
  }
  if (deep && (await hasSixteenBits(file))) {
    const { width, height, data, channels, iccEmbeddedProfile } = decodePng(await file.arrayBuffer());
    if (data instanceof Uint16Array) {
      const read = { data, channels };
      values = { ...(iccEmbeddedProfile ? await toSrgb(read, iccEmbeddedProfile.profile) : read), deep: true };
      return { width, height, deep: true };
    }
  }
  conversion = await tableConversion(file);
  // Orientation from Exif is the browser's, and so is the conversion from a profile of primaries and curves.
  bitmap = await createImageBitmap(await withoutGamma(file), {
    imageOrientation: 'from-image',
    premultiplyAlpha: 'none',
    colorSpaceConversion: conversion ? 'none' : 'default',
  });
  return { width: bitmap.width, height: bitmap.height, deep: false };
}

/** Where a TIFF file holds its colour profile (ICC.1:2022, annex B.4). */
const ICC = 34675;

/** A tag's bytes, as the decoder gives them: a list, or a single number. */
const bytesOf = (field: unknown): Uint8Array | null =>
  Array.isArray(field) || ArrayBuffer.isView(field) ? Uint8Array.from(field as number[]) : null;

/** Bytes at the beginning of a file in which its profile is looked for. */
const PROFILE_HEAD = 4 << 20;

/** The conversion of a picture of 8 bits with a table profile: Chromium's is up to 2.4 of CIEDE2000 off. Null for any other picture. */
async function tableConversion(file: Blob): Promise<Conversion | null> {
  const profile = embeddedProfile(new Uint8Array(await file.slice(0, PROFILE_HEAD).arrayBuffer()));
  return profile && isTable(profile) ? openConversion(profile, 4, false) : null;
}

/** Lets go of the decoded picture. */
function release(): void {
  bitmap?.close();
  conversion?.close();
  bitmap = conversion = null;
}

/** @throws Error for a kind of TIFF that is not read. */
async function readTiff(file: Blob): Promise<{ width: number; height: number; profile: Uint8Array | null } & Values> {
  const [{ width, height, data, samplesPerPixel, palette, fields }] = decodeTiff(await file.arrayBuffer(), { pages: [0] });
  if (palette || !(data instanceof Uint8Array || data instanceof Uint16Array) || samplesPerPixel > 4)
    throw new Error('This kind of TIFF is not read.');
  return { width, height, data, channels: samplesPerPixel, profile: bytesOf(fields.get(ICC)) };
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
function placeValues(machine: Machine, at: number, { data, channels, deep }: NonNullable<typeof values>): void {
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
    const { data } = context.getImageData(0, 0, width, rows);
    machine.bytes.set(conversion ? conversion.convert(new Uint8Array(data.buffer)) : data, at + y * width * 4);
  }
  release();
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
