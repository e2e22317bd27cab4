import { useEffect, useState } from 'react';
import { identify } from '@/core/graph/key';
import { mapCoats } from '@/core/piece/groups';
import { pieceSize } from '@/core/ready/geometry';
import type { Piece } from '@/core/piece/schema';
import type { Region } from '@/core/image/tile';
import type { View } from '@/core/render/view';
import { getEngine } from '@/store/engine';

/** Pictures of cards by what they show; the objects of a piece never change, so they can be keys. */
const made = new WeakMap<object, Map<string, string>>();
let line: Promise<unknown> = Promise.resolve();

/**
 * A small picture of a piece in some view, as a data URL. Made one at a time and only after the picture has rested, so that a drag is not
 * held up; while a newer one is made the old one stays.
 */
export function useThumb(piece: Piece | null, view: View, subject: readonly unknown[], size: number): string | null {
  const [url, setUrl] = useState<string | null>(null);
  const name = JSON.stringify([view, size]);
  // What it hangs on: the last of its parts that is there.
  const anchor = subject.findLast((s) => typeof s === 'object' && s !== null) as object;
  useEffect(() => {
    if (!piece) return;
    const kept = made.get(anchor)?.get(name + below(subject));
    let live = true;
    if (kept) {
      void Promise.resolve(kept).then((k) => live && setUrl(k));
      return () => void (live = false);
    }
    const timer = setTimeout(() => {
      line = line
        .then(async () => {
          if (!live) return;
          const data = await drawCut(piece, JSON.parse(name)[0] as View, size);
          const map = made.get(anchor) ?? new Map<string, string>();
          made.set(anchor, map.set(name + below(subject), data));
          if (live) setUrl(data);
        })
        .catch(() => undefined);
    }, 250);
    return () => {
      live = false;
      clearTimeout(timer);
    };
    // The subject is what the card depends on; its parts are compared one by one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [name, ...subject]);
  return url;
}

const below = (subject: readonly unknown[]) => subject.map((s) => (typeof s === 'object' && s !== null ? identify(s) : String(s))).join();

/** Draws a region of a piece and returns its pixels as an image. */
async function image(piece: Piece, view: View, scale: number, region: Region): Promise<ImageData> {
  const engine = await getEngine();
  const made = new ImageData(region.width, region.height);
  await engine.draw({ piece, region, scale, view }, (bytes) => made.data.set(bytes), { quick: true });
  return made;
}

function toUrl(made: ImageData): string {
  const canvas = document.createElement('canvas');
  canvas.width = made.width;
  canvas.height = made.height;
  canvas.getContext('2d')?.putImageData(made, 0, 0);
  return canvas.toDataURL('image/jpeg', 0.85);
}

/** The whole picture with its long side `size` pixels. */
export async function drawWhole(piece: Piece, view: View, size: number): Promise<string> {
  const { width: W, height: H } = pieceSize(piece);
  const scale = Math.min(1, size / Math.max(W, H));
  const region = { x: 0, y: 0, width: Math.max(1, Math.round(W * scale)), height: Math.max(1, Math.round(H * scale)) };
  return toUrl(await image(piece, view, scale, region));
}

/** Part of the short side that a coat's card shows. */
const CUT = 0.55;

/** A square cut: for a coat, where it changes the picture most; else the middle. */
async function drawCut(piece: Piece, view: View, size: number): Promise<string> {
  const { width: W, height: H } = pieceSize(piece);
  const short = Math.min(W, H);
  const coat = view.kind === 'upTo' ? view.coat : null;
  const part = coat === null && view.kind !== 'alone' ? 1 : CUT;
  const [cx, cy] = coat === null ? [0.5, 0.4] : await busiest(piece, coat, part);
  const scale = Math.min(1, size / (short * part));
  const [w, h] = [Math.max(1, Math.round(W * scale)), Math.max(1, Math.round(H * scale))];
  const side = Math.min(w, h, size);
  const clamp = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)));
  const region = { x: clamp(cx * w - side / 2, w - side), y: clamp(cy * h - side / 2, h - side), width: side, height: side };
  return toUrl(await image(piece, view, scale, region));
}

/** Middle of the window in which a coat changes what lies below it most, in fractions of the photo. */
async function busiest(piece: Piece, coat: string, part: number): Promise<[number, number]> {
  const { width: W, height: H } = pieceSize(piece);
  const scale = 32 / Math.min(W, H);
  if (scale >= 1) return [0.5, 0.5];
  const region = { x: 0, y: 0, width: Math.round(W * scale), height: Math.round(H * scale) };
  const hidden = { ...piece, coats: mapCoats(piece.coats, (one) => (one.id === coat ? { ...one, visible: false } : one)) };
  const one = await image(piece, { kind: 'upTo', coat }, scale, region);
  const two = await image(hidden, { kind: 'upTo', coat }, scale, region);
  const side = Math.max(1, Math.round(32 * part));
  let best = -1;
  let place: [number, number] = [0.5, 0.5];
  for (let y = 0; y + side <= region.height; y += 2) {
    for (let x = 0; x + side <= region.width; x += 2) {
      let sum = 0;
      for (let j = y; j < y + side; j += 2)
        for (let i = x; i < x + side; i += 2) sum += Math.abs(one.data[(j * region.width + i) * 4 + 1] - two.data[(j * region.width + i) * 4 + 1]);
      if (sum > best * 1.05) [best, place] = [sum, [(x + side / 2) / region.width, (y + side / 2) / region.height]];
    }
  }
  return place;
}
