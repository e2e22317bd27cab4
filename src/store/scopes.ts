import { create } from 'zustand';
import { greyWorld, histogramOf, type Histogram } from '../core/measure/histogram';
import { castCurve, stretchCurves, type Channel } from '../core/measure/mend';
import { paradeOf, type Parade } from '../core/measure/parade';
import { hueWheel, type HueWheel } from '../core/measure/wheel';
import type { Piece } from '../core/piece/schema';
import { pieceSize } from '../core/ready/geometry';
import type { Ready } from '../core/ready/schema';
import type { View } from '../core/render/view';
import type { CurvePoint } from '../core/treatments/curves';
import { smoothCurve } from '../core/treatments/curves';
import { getEngine } from './engine';
import { readyOf } from './ready';

export type ScopeKind = 'histogram' | 'parade' | 'hues';

interface ScopesState {
  /** How many of the panels on screen show a scope: nothing is measured when none does. */
  watchers: number;
  /** Counts requests for the pixels on the canvas; the painter answers each. */
  asked: number;
  kind: ScopeKind;
  /** Of what is in view, or of the whole picture. */
  part: 'view' | 'whole';
  /** What is clipped is painted over the picture. */
  clipping: boolean;
  histogram: Histogram | null;
  parade: Parade | null;
  wheel: HueWheel | null;
  /** The photo before its light and colour were readied. */
  before: Histogram | null;
  set(change: Partial<Pick<ScopesState, 'kind' | 'part' | 'clipping'>>): void;
}

export const useScopes = create<ScopesState>((set) => ({
  watchers: 0,
  asked: 0,
  kind: 'histogram',
  part: 'view',
  clipping: false,
  histogram: null,
  parade: null,
  wheel: null,
  before: null,
  set: (change) => set(change),
}));

const SAMPLES = 60_000;
const PAUSE = 50;
let last = 0;
let later: ReturnType<typeof setTimeout> | undefined;

/** Measures RGBA8 pixels of some size now. */
function scope(pixels: Uint8Array, width: number, height: number): void {
  last = performance.now();
  const { kind } = useScopes.getState();
  const step = Math.max(1, Math.floor((width * height) / SAMPLES));
  useScopes.setState({
    histogram: histogramOf(pixels, step),
    parade: paradeOf(pixels, width, height, 64, step),
    wheel: kind === 'hues' ? hueWheel(pixels, 36, step) : null,
  });
}

/** Asks the painter for the pixels on the canvas. */
export const askAgain = (): void => useScopes.setState((s) => ({ asked: s.asked + 1 }));

/** Measures what has just been drawn, at most twenty times a second and on some ten thousand pixels. */
export function measure(rgba: Uint8Array, width: number, height: number): void {
  const { watchers, part, clipping } = useScopes.getState();
  if (watchers === 0 || part === 'whole' || clipping) return;
  clearTimeout(later);
  const wait = PAUSE - (performance.now() - last);
  if (wait <= 0) scope(rgba, width, height);
  else later = setTimeout(askAgain, wait);
}

let running = false;
let wanted: Piece | null = null;

/** Measures the whole piece on a small drawing. When requests come faster than they are measured, only the newest counts. */
export async function measureWhole(piece: Piece, view: View): Promise<void> {
  wanted = piece;
  if (running) return;
  running = true;
  try {
    while (wanted) {
      const one: Piece = wanted;
      wanted = null;
      const { pixels, width, height } = await small(one, view);
      scope(pixels, width, height);
    }
  } finally {
    running = false;
  }
}

/** The photo as framed, without what was done to its light and colour. */
const bare = (piece: Piece): Piece => {
  const { quarter, flip, lens, perspective, crop, spots } = readyOf(piece);
  return { ...piece, coats: [], ready: { quarter, flip, lens, perspective, crop, spots } as Ready };
};

let beforeKey = '';

/** Measures the photo as it was before its light and colour were readied, once for every frame. */
export async function measureBefore(piece: Piece): Promise<void> {
  const plain = bare(piece);
  const key = JSON.stringify([piece.photo.key, plain.ready]);
  if (key === beforeKey) return;
  beforeKey = key;
  const { pixels } = await small(plain, { kind: 'piece' });
  useScopes.setState({ before: histogramOf(pixels) });
}

/** Some ten thousand pixels of a whole piece. */
export async function small(piece: Piece, view: View): Promise<{ pixels: Uint8Array; width: number; height: number }> {
  const size = pieceSize(piece);
  const scale = Math.min(1, 300 / Math.max(size.width, size.height));
  const [width, height] = [Math.max(1, Math.round(size.width * scale)), Math.max(1, Math.round(size.height * scale))];
  const engine = await getEngine();
  const pixels = await engine.draw({ piece, region: { x: 0, y: 0, width, height }, scale, view }, (p) => p.slice(), { quick: true });
  return { pixels, width, height };
}

/** Gains that make the photo grey on the whole, measured without its present balance. */
export async function automaticGains(piece: Piece): Promise<[number, number, number]> {
  return greyWorld((await small(bare(piece), { kind: 'piece' })).pixels);
}

type Curves = NonNullable<Ready['curves']>;
const straight: CurvePoint[] = [
  [0, 0],
  [1, 1],
];
const noCurves: Curves = { all: straight, red: straight, green: straight, blue: straight };

/** Curves that spread every channel of the photo over the whole range. */
export async function stretched(piece: Piece): Promise<Curves> {
  const flat = { ...piece, coats: [], ready: { ...readyOf(piece), curves: undefined, monochrome: undefined } };
  const curves = stretchCurves(histogramOf((await small(flat, { kind: 'piece' })).pixels));
  return { ...noCurves, all: readyOf(piece).curves?.all ?? straight, ...curves };
}

/** What is in a whole piece, counted on a small drawing. */
export const histogramOfPiece = async (piece: Piece): Promise<Histogram> => histogramOf((await small(piece, { kind: 'piece' })).pixels);

/** The photo's curves with one more on the channel that stands apart; null when none does. */
export async function withoutCast(piece: Piece): Promise<{ curves: Curves; channel: Channel } | null> {
  const now = readyOf(piece).curves ?? noCurves;
  const mended = castMended(await histogramOfPiece({ ...piece, coats: [] }), now);
  return mended && { curves: { ...now, [mended.channel]: mended.points }, channel: mended.channel };
}

/** The curve of the channel that stands apart in what `now` has made, with one more after it; null when none does. */
export function castMended(seen: Histogram, now: Curves): { channel: Channel; points: CurvePoint[] } | null {
  const mend = castCurve(seen);
  if (!mend) return null;
  const own = smoothCurve(now[mend.channel]);
  const after = smoothCurve(mend.points);
  // The points of the present curve, and those where the new curve's points meet it.
  const xs = new Set(now[mend.channel].map(([x]) => x));
  for (const [y] of mend.points) xs.add(inverse(own, y));
  const points = [...xs]
    .sort((a, b) => a - b)
    .filter((x, i, all) => i === 0 || x - all[i - 1] > 0.01 || x === 1)
    .slice(0, 16)
    .map((x): CurvePoint => [x, Math.round(Math.min(1, Math.max(0, after(own(x)))) * 1000) / 1000]);
  return { channel: mend.channel, points };
}

/** Where a rising curve reaches a value. */
function inverse(curve: (x: number) => number, y: number): number {
  let [a, b] = [0, 1];
  for (let i = 0; i < 20; i++) {
    const middle = (a + b) / 2;
    if (curve(middle) < y) a = middle;
    else b = middle;
  }
  return Math.round(((a + b) / 2) * 1000) / 1000;
}
