import { useEffect, useRef, useState } from 'react';
import { getEngine } from '@/store/engine';

const made = new Map<string, ImageData>();
/** Queues of pictures to be made, as many as there are workers. */
let lines: Promise<unknown>[] = [];
let turn = 0;

async function queue(): Promise<number> {
  if (lines.length === 0) lines = Array.from({ length: (await getEngine()).pool.size }, () => Promise.resolve());
  return turn++ % lines.length;
}

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

/** Sides of the pictures that are made when the page is built. */
const KEPT = 256;

/** A small picture of a material: the one made at build time as it is first laid, else, and where that is missing, drawn by its generator. */
export function MaterialThumb(props: Props) {
  const { id, seed = 1, params, label, side = KEPT } = props;
  const [missing, setMissing] = useState(false);
  if (missing || seed !== 1 || side > KEPT || Object.keys(params ?? {}).length > 0) return <LiveThumb {...props} />;
  return (
    <img
      src={`/thumbs/${id}.jpg`}
      alt={label}
      loading="lazy"
      data-thumb={id}
      onLoad={(e) => (e.currentTarget.dataset.made = '')}
      onError={() => setMissing(true)}
      style={{ width: '100%', height: '100%', display: 'block', objectFit: 'cover' }}
    />
  );
}

/** A material drawn by its generator when it comes into view. */
function LiveThumb({ id, seed = 1, params, label, side = KEPT }: Props) {
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
    const show = (image: ImageData | null) => {
      if (!live || !image || !canvas.current) return;
      canvas.current.getContext('2d')?.putImageData(image, 0, 0);
      canvas.current.dataset.made = '';
    };
    void queue().then(
      (k) =>
        (lines[k] = lines[k]
          .then(() => (live ? draw(id, seed, JSON.parse(figures) as Record<string, unknown>, side, key) : null))
          .then(show, () => undefined)),
      () => undefined,
    );
    return () => void (live = false);
  }, [seen, id, seed, side, figures, key]);
  return (
    <canvas
      ref={canvas}
      data-thumb={id}
      width={side}
      height={side}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
      style={{ width: '100%', height: '100%', display: 'block', objectFit: 'cover' }}
    />
  );
}
