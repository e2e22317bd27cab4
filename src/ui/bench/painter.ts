import equal from 'fast-deep-equal';
import { pieceSize } from '@/core/ready/geometry';
import type { Piece } from '@/core/piece/schema';
import type { View } from '@/core/render/view';
import type { Region } from '@/core/image/tile';
import type { Engine } from '@/engine/engine';
import { Cancelled } from '@/engine/stopping';
import { useFrames } from '@/store/frames';
import type { Viewport } from './viewport';

export interface Scene {
  piece: Piece;
  view: View;
  chosen: string | null;
  viewport: Viewport;
  zoom: number;
  density: number;
  /** All of the photo is shown while its frame is set: nothing lies beyond its edges. */
  clear?: boolean;
  /** What is clipped is painted over. */
  clipping?: boolean;
}

/** A drag draws about this many pixels; the rest of the screen's follow when it rests. */
export const QUICK_PIXELS = 400_000;
const REST = 80;
/** When it still rests after this long, materials become as fine as the photo. */
const LONG_REST = 220;
/** A quick drawing that takes longer than this, in ms, makes the next one coarser; */
const SLOW = 120;
/** one that takes longer than this is given up for a coarser one, */
const LATE = 400;
/** but for none of fewer pixels than these. */
const LEAST_PIXELS = 12_000;

interface Drawn {
  region: Region;
  scale: number;
}

/**
 * Draws the scene on a canvas: quickly while it changes, always the newest and never two at once, then finely as soon as it rests. A fine
 * drawing under way is stopped by the next change.
 */
export class Painter {
  private wanted: Scene | null = null;
  private last: Scene | null = null;
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private fine: AbortController | null = null;
  private drawn: Drawn | null = null;
  private image: ImageData | null = null;
  /** How many pixels the next quick drawing has. */
  private quickPixels = QUICK_PIXELS;
  private failed = false;
  private closed = false;

  constructor(
    private readonly engine: Engine,
    private readonly canvas: HTMLCanvasElement,
    private readonly onError: (error: unknown) => void,
    private readonly onDrawn: () => void = () => undefined,
    private readonly onFrame: (rgba: Uint8Array, width: number, height: number) => void = () => undefined,
  ) {}

  request(scene: Scene): void {
    // A released slider keeps what is already on the canvas; only the objects are new.
    if (this.last && !this.failed && sameScene(this.last, scene)) return;
    this.failed = false;
    this.wanted = scene;
    this.last = scene;
    this.canvas.dataset.drawn = 'no';
    this.canvas.dataset.detail = 'no';
    this.place(scene);
    this.fine?.abort();
    clearTimeout(this.timer);
    void this.pump();
  }

  close(): void {
    this.closed = true;
    this.fine?.abort();
    clearTimeout(this.timer);
  }

  private async pump(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      while (this.wanted && !this.closed) {
        const scene = this.wanted;
        this.wanted = null;
        await this.drawQuickly(scene);
      }
    } catch (error) {
      this.fail(error);
    } finally {
      this.busy = false;
    }
    if (!this.closed && this.last) this.timer = setTimeout(() => void this.refine(), REST);
  }

  /** A quick drawing that is late is given up for a coarser one; how coarse follows from how long the last ones took. */
  private async drawQuickly(scene: Scene): Promise<void> {
    const stop = new AbortController();
    const late = this.quickPixels > LEAST_PIXELS ? setTimeout(() => stop.abort(), LATE) : undefined;
    const begun = performance.now();
    try {
      await this.draw(scene, true, stop.signal);
    } catch (error) {
      if (!stop.signal.aborted || !(error instanceof Cancelled)) throw error;
    } finally {
      clearTimeout(late);
    }
    const took = performance.now() - begun;
    if (stop.signal.aborted) {
      this.quickPixels = Math.max(LEAST_PIXELS, this.quickPixels / 8);
      this.wanted ??= scene;
    } else if (took > SLOW) this.quickPixels = Math.max(LEAST_PIXELS, this.quickPixels * Math.max(0.3, SLOW / took));
    else if (took < SLOW / 2) this.quickPixels = Math.min(QUICK_PIXELS, this.quickPixels * 1.6);
  }

  private async refine(): Promise<void> {
    if (this.busy || !this.last) return;
    const stop = new AbortController();
    this.fine = stop;
    const scene = this.last;
    try {
      const begun = performance.now();
      await this.draw(scene, false, stop.signal);
      if (scene !== this.last || stop.signal.aborted) return;
      // Tests wait for this: the canvas now has the screen's full resolution.
      this.canvas.dataset.drawn = 'fine';
      if (!this.gainsDetail(scene)) return void (this.canvas.dataset.detail = 'full');
      await restOf(LONG_REST - (performance.now() - begun));
      if (scene !== this.last || stop.signal.aborted) return;
      await this.draw(scene, false, stop.signal, true);
      if (scene === this.last && !stop.signal.aborted) this.canvas.dataset.detail = 'full';
    } catch (error) {
      this.fail(error);
    }
  }

  private fail(error: unknown): void {
    if (error instanceof Cancelled) return;
    this.failed = true;
    this.onError(error);
  }

  private gainsDetail({ piece, view, clear, zoom, density }: Scene): boolean {
    return this.engine.detailSeconds({ piece, view, clear, scale: zoom * density }) > 0;
  }

  private async draw(scene: Scene, quick: boolean, signal?: AbortSignal, full = false): Promise<void> {
    const { piece, viewport, zoom, density } = scene;
    const finest = zoom * density;
    const area = visible(scene, finest);
    if (!area) return;
    const pixels = area.width * area.height;
    const scale = quick && pixels > this.quickPixels ? finest * Math.sqrt(this.quickPixels / pixels) : finest;
    const region = visible(scene, scale);
    if (!region) return;
    const view = scene.view;
    await this.engine.draw(
      { piece, region, scale, view, chosen: scene.chosen ?? undefined, clear: scene.clear, clipping: scene.clipping, full },
      (bytes) => {
        if (this.closed || signal?.aborted) return;
        this.show(bytes, region, scale);
        this.onFrame(bytes, region.width, region.height);
        this.place(this.last ?? { ...scene, viewport });
        useFrames.setState({ frame: { quick, pixels: region.width * region.height } });
      },
      { quick, signal },
    );
  }

  private show(bytes: Uint8Array, region: Region, scale: number): void {
    const { canvas } = this;
    if (canvas.width !== region.width || canvas.height !== region.height) {
      canvas.width = region.width;
      canvas.height = region.height;
    }
    if (!this.image || this.image.width !== region.width || this.image.height !== region.height)
      this.image = new ImageData(region.width, region.height);
    this.image.data.set(bytes);
    canvas.getContext('2d')?.putImageData(this.image, 0, 0);
    if (!this.drawn) this.onDrawn();
    this.drawn = { region, scale };
  }

  /** Hands the pixels on the canvas to the scopes again. */
  again(): void {
    if (this.image && this.drawn) this.onFrame(new Uint8Array(this.image.data.buffer), this.image.width, this.image.height);
  }

  /** Moves what is drawn to where it belongs in the view, at once. */
  private place({ viewport, zoom }: Scene): void {
    if (!this.drawn) return;
    const { region, scale } = this.drawn;
    const { style } = this.canvas;
    style.left = `${(region.x / scale - viewport.x) * zoom + viewport.width / 2}px`;
    style.top = `${(region.y / scale - viewport.y) * zoom + viewport.height / 2}px`;
    style.width = `${(region.width / scale) * zoom}px`;
    style.height = `${(region.height / scale) * zoom}px`;
    style.imageRendering = zoom > 3 && scale >= 1 ? 'pixelated' : 'auto';
  }
}

const restOf = (ms: number) => new Promise((resolve) => setTimeout(resolve, Math.max(0, ms)));

const sameScene = (a: Scene, b: Scene): boolean => equal(withoutRecord(a), withoutRecord(b));

/** A scene without what does not affect the picture. */
const withoutRecord = ({ piece: { name: _name, changed: _changed, created: _created, ...piece }, ...scene }: Scene) => ({ ...scene, piece });

/** The part of the piece that is in view, in whole pixels at a scale; null when none is. */
function visible({ piece, viewport, zoom }: Scene, scale: number): Region | null {
  const k = scale / zoom;
  const halfW = (viewport.width / 2) * k;
  const halfH = (viewport.height / 2) * k;
  const left = Math.max(0, Math.floor(viewport.x * scale - halfW));
  const top = Math.max(0, Math.floor(viewport.y * scale - halfH));
  const { width, height } = pieceSize(piece);
  const right = Math.min(Math.max(1, Math.round(width * scale)), Math.ceil(viewport.x * scale + halfW));
  const bottom = Math.min(Math.max(1, Math.round(height * scale)), Math.ceil(viewport.y * scale + halfH));
  return right > left && bottom > top ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}
