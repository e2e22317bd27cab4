import { create } from 'zustand';
import { editingCrop } from '../core/ready/editing';
import { pieceSize } from '../core/ready/geometry';
import { findLevel, findUprights, type Level, type Line } from '../core/ready/level';
import { setReady } from '../core/piece/rebase';
import { neutralReady, type Ready } from '../core/ready/schema';
import type { Piece } from '../core/piece/schema';
import type { Fringes } from '../core/ready/fringes';
import type { Spot } from '../core/ready/spots/schema';
import { useBench, type FacetId } from './bench';
import { getEngine } from './engine';
import { words } from './words';

/** What one stroke on the picture does while the photo is readied. */
export type ReadyTool = 'frame' | 'line' | 'uprights' | 'corners' | 'neutral' | 'bend' | 'hue';

/** x, y of both ends in CSS pixels of the view. */
export type ViewLine = [number, number, number, number];

interface ReadyState {
  /** Shape that the frame keeps; one of `ratios`, or 'own'. */
  shape: string;
  /** Width and height of the person's own shape. */
  own: [number, number];
  tool: ReadyTool;
  /** A line being drawn, in CSS pixels of the view. */
  line: ViewLine | null;
  /** The first of two lines along upright things: in the view, and in fractions of the photo. */
  first: { view: ViewLine; photo: Line } | null;
  /** Points of a freehand stroke under way, in CSS pixels of the view. */
  stroke: [number, number][] | null;
  /** Diameter of the tip that takes spots out, in u of the file. */
  spotSize: number;
  /** The spot that is worked on, counted from the first. */
  spot: number | null;
  /** The coats show while the photo is readied. */
  withCoats: boolean;
  set(change: Partial<Omit<ReadyState, 'set'>>): void;
}

export const useReady = create<ReadyState>((set) => ({
  shape: 'free',
  own: [21, 9],
  tool: 'frame',
  line: null,
  first: null,
  stroke: null,
  spotSize: 30,
  spot: null,
  withCoats: false,
  set: (change) => set(change),
}));

/** Tabs on which the photo itself is judged. */
const JUDGED: readonly (FacetId | null)[] = ['frame', 'spots', 'light', 'colour', 'detail'];
export const isPhotoTab = (chosen: string | null, facet: FacetId | null): boolean => chosen === null && JUDGED.includes(facet);

export const readyOf = (piece: Pick<Piece, 'ready'>): Ready => piece.ready ?? neutralReady;

/** An edit of the readying; coats stay on the same points of the photo. */
export const changeReady =
  (change: (ready: Ready) => Ready) =>
  (piece: Piece): Piece =>
    setReady(piece, change(readyOf(piece)));

/**
 * The piece as it is shown while its frame is set: all of the photo, turned as the frame is, without coats; and without its perspective
 * and turn while that is set.
 */
export function framing(piece: Piece, tool: ReadyTool): Piece {
  const ready = readyOf(piece);
  if (tool === 'uprights' || tool === 'corners') return { ...piece, coats: [], ready: { ...ready, perspective: undefined, crop: neutralReady.crop } };
  return { ...piece, coats: [], ready: { ...ready, crop: editingCrop(piece.photo, ready) } };
}

export const isFraming = (chosen: string | null, facet: FacetId | null): boolean => chosen === null && facet === 'frame';

/** Takes a spot out of the photo: its source is looked for first, so that it can be seen and dragged. */
export async function addSpot(spot: Spot): Promise<void> {
  const { piece } = useBench.getState();
  if (!piece) return;
  const from = await (await getEngine()).spotSource(piece, spot);
  const { change } = useBench.getState();
  change(
    words.ready.removeASpot,
    changeReady((r) => ({ ...r, spots: [...r.spots, { ...spot, from: rounded(from) }] })),
  );
  useReady.getState().set({ spot: readyOf(useBench.getState().piece as Piece).spots.length - 1 });
}

/** Chooses a spot; one whose source was left to be found shows where it was found, so that it can be dragged from there. */
export async function chooseSpot(index: number): Promise<void> {
  useReady.getState().set({ spot: index });
  const { piece } = useBench.getState();
  const ready = piece && readyOf(piece);
  const spot = ready?.spots[index];
  if (!piece || !spot || spot.from) return;
  const before = { ...piece, ready: { ...ready, spots: ready.spots.slice(0, index) } };
  const from = await (await getEngine()).spotSource(before, spot);
  useBench.getState().change(
    words.ready.findTheSource,
    changeReady((r) => ({ ...r, spots: r.spots.map((s, i) => (i === index && !s.from ? { ...s, from: rounded(from) } : s)) })),
  );
}

const rounded = (offset: [number, number]): [number, number] => [Math.round(offset[0] * 1e5) / 1e5, Math.round(offset[1] * 1e5) / 1e5];

/** How far red and blue are to be drawn to lie on green; null when the photo has too few edges to tell. */
export async function fringesOf(piece: Piece): Promise<Fringes | null> {
  return (await getEngine()).fringes(piece);
}

const ANALYSIS = 640;

/** The turn that levels the photo's lines. */
export async function levelOf(piece: Piece): Promise<Level | null> {
  const { luma, size } = await lumaOf(piece, { ...readyOf(piece), crop: neutralReady.crop });
  return findLevel(luma, size);
}

/** Two lines along what is upright in the photo. */
export async function uprightsOf(piece: Piece): Promise<[Line, Line] | null> {
  const { luma, size } = await lumaOf(piece, { ...readyOf(piece), perspective: undefined, crop: neutralReady.crop });
  return findUprights(luma, size);
}

/** Luma of the photo readied so, at an analysis size. */
async function lumaOf(piece: Piece, ready: Ready): Promise<{ luma: Float32Array; size: { width: number; height: number } }> {
  const whole = { ...piece, coats: [], ready };
  const size = pieceSize(whole);
  const scale = Math.min(1, ANALYSIS / Math.max(size.width, size.height));
  const [width, height] = [Math.max(1, Math.round(size.width * scale)), Math.max(1, Math.round(size.height * scale))];
  const engine = await getEngine();
  const luma = new Float32Array(width * height);
  await engine.draw({ piece: whole, region: { x: 0, y: 0, width, height }, scale }, (p) => {
    for (let i = 0; i < luma.length; i++) luma[i] = 0.2126 * p[4 * i] + 0.7152 * p[4 * i + 1] + 0.0722 * p[4 * i + 2];
  });
  return { luma, size: { width, height } };
}
