import { create } from 'zustand';
import { greyWorld, histogramOf, type Histogram } from '../core/measure/histogram';
import type { Piece } from '../core/piece/schema';
import { pieceSize } from '../core/ready/geometry';
import { neutralReady } from '../core/ready/schema';
import { getEngine } from './engine';
import { readyOf } from './ready';

interface ScopesState {
  /** How many of the panels on screen show a scope: nothing is measured when none does. */
  watchers: number;
  histogram: Histogram | null;
}

export const useScopes = create<ScopesState>(() => ({ watchers: 0, histogram: null }));

const SAMPLES = 60_000;
const PAUSE = 50;
let last = 0;
let later: ReturnType<typeof setTimeout> | undefined;

/** Measures what has just been drawn, at most twenty times a second and on some ten thousand pixels. */
export function measure(rgba: Uint8Array): void {
  if (useScopes.getState().watchers === 0) return;
  clearTimeout(later);
  const run = (pixels: Uint8Array) => {
    last = performance.now();
    useScopes.setState({ histogram: histogramOf(pixels, Math.max(1, Math.floor(pixels.length / 4 / SAMPLES))) });
  };
  const wait = PAUSE - (performance.now() - last);
  if (wait <= 0) return run(rgba);
  // The pixels are gone with the next drawing, so a late measure needs its own copy.
  const copy = rgba.slice();
  later = setTimeout(() => run(copy), wait);
}

/** Gains that make the photo grey on the whole, measured without its present balance. */
export async function automaticGains(piece: Piece): Promise<[number, number, number]> {
  const ready = { ...readyOf(piece), whiteBalance: undefined, tone: undefined, curves: undefined, colour: undefined, monochrome: undefined };
  const bare = { ...piece, coats: [], ready: piece.ready ? ready : neutralReady };
  const size = pieceSize(bare);
  const scale = Math.min(1, 300 / Math.max(size.width, size.height));
  const region = { x: 0, y: 0, width: Math.max(1, Math.round(size.width * scale)), height: Math.max(1, Math.round(size.height * scale)) };
  const engine = await getEngine();
  return engine.draw({ piece: bare, region, scale }, (p) => greyWorld(p));
}
