import { useEffect, useRef, useState } from 'react';
import { getEngine } from '@/store/engine';

const made = new Map<string, ImageData>();
let line: Promise<unknown> = Promise.resolve();

async function draw(id: string, seed: number, params: Record<string, unknown>, side: number, key: string): Promise<ImageData> {
  const there = made.get(key);
  if (there) return there;
  const engine = await getEngine();
  const { pixels, width, height } = await engine.materialPixels({ id, seed, params, width: side, height: side });
  const image = new ImageData(width, height);
  image.data.set(pixels);
  made.set(key, image);
  return image;
}

interface Props {
  id: string;
  seed?: number;
  params?: Record<string, unknown>;
  label: string;
  /** Pixels a side. */
  side?: number;
}

/** A material drawn live by its generator, when it comes into view. */
export function MaterialThumb({ id, seed = 1, params, label, side = 256 }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [seen, setSeen] = useState(false);
  const figures = JSON.stringify(params ?? {});
  const key = `${id}|${seed}|${side}|${figures}`;
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const watch = new IntersectionObserver((entries) => entries.some((e) => e.isIntersecting) && setSeen(true), { rootMargin: '200px' });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  useEffect(() => {
    if (!seen) return;
    let live = true;
    line = line
      .then(() => (live ? draw(id, seed, JSON.parse(figures) as Record<string, unknown>, side, key) : null))
      .then(
        (image) => void (live && image && canvas.current?.getContext('2d')?.putImageData(image as ImageData, 0, 0)),
        () => undefined,
      );
    return () => void (live = false);
  }, [seen, id, seed, side, figures, key]);
  return (
    <canvas
      ref={canvas}
      width={side}
      height={side}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
      style={{ width: '100%', height: '100%', display: 'block', objectFit: 'cover' }}
    />
  );
}
