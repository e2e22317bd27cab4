import { useEffect, useState } from 'react';
import type { Coat, Piece } from '@/core/piece/schema';
import type { View } from '@/core/render/plan';
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
  const anchor = subject[subject.length - 1] as Coat | object;
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
          const data = await drawSmall(piece, JSON.parse(name)[0] as View, size);
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

const identity = new WeakMap<object, number>();
let next = 0;
const below = (subject: readonly unknown[]) =>
  subject
    .map((s) => {
      if (typeof s !== 'object' || s === null) return String(s);
      if (!identity.has(s)) identity.set(s, ++next);
      return identity.get(s);
    })
    .join();

/** Draws with the short side `size` pixels long and cuts the middle square; `whole` keeps the shape, long side `size`. */
export async function drawSmall(piece: Piece, view: View, size: number, whole = false): Promise<string> {
  const engine = await getEngine();
  const { width: W, height: H } = piece.photo;
  const scale = Math.min(1, size / (whole ? Math.max(W, H) : Math.min(W, H)));
  const [w, h] = [Math.max(1, Math.round(W * scale)), Math.max(1, Math.round(H * scale))];
  const [cw, ch] = whole ? [w, h] : [Math.min(w, size), Math.min(h, size)];
  const region = { x: Math.floor((w - cw) / 2), y: Math.floor((h - ch) / 3), width: cw, height: ch };
  const canvas = document.createElement('canvas');
  canvas.width = cw;
  canvas.height = ch;
  await engine.draw(
    { piece, region, scale, view },
    (bytes) => {
      const image = new ImageData(cw, ch);
      image.data.set(bytes);
      canvas.getContext('2d')?.putImageData(image, 0, 0);
    },
    { quick: true },
  );
  return canvas.toDataURL('image/jpeg', 0.85);
}
