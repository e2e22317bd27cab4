import { create } from 'zustand';
import { editingCrop } from '../core/ready/editing';
import { pieceSize } from '../core/ready/geometry';
import { findLevel, type Level } from '../core/ready/level';
import { setReady } from '../core/ready/rebase';
import { neutralReady, type Ready } from '../core/ready/schema';
import type { Piece } from '../core/piece/schema';
import type { FacetId } from './bench';
import { getEngine } from './engine';

/** What one stroke on the picture does while the photo is readied. */
export type ReadyTool = 'frame' | 'line' | 'neutral';

interface ReadyState {
  /** Shape that the frame keeps; one of `ratios`, or 'own'. */
  shape: string;
  /** Width and height of the person's own shape. */
  own: [number, number];
  tool: ReadyTool;
  /** A line being drawn, in CSS pixels of the view. */
  line: [number, number, number, number] | null;
  set(change: Partial<Omit<ReadyState, 'set'>>): void;
}

export const useReady = create<ReadyState>((set) => ({ shape: 'free', own: [21, 9], tool: 'frame', line: null, set: (change) => set(change) }));

export const readyOf = (piece: Pick<Piece, 'ready'>): Ready => piece.ready ?? neutralReady;

/** An edit of the readying; coats stay on the same points of the photo. */
export const changeReady =
  (change: (ready: Ready) => Ready) =>
  (piece: Piece): Piece =>
    setReady(piece, change(readyOf(piece)));

/** The piece as it is shown while its frame is set: all of the photo, turned as the frame is, without coats. */
export function framing(piece: Piece): Piece {
  const ready = readyOf(piece);
  return { ...piece, coats: [], ready: { ...ready, crop: editingCrop(piece.photo, ready) } };
}

export const isFraming = (chosen: string | null, facet: FacetId | null): boolean => chosen === null && facet === 'frame';

const ANALYSIS = 640;

/** Luma of the photo, upright but not turned, at an analysis size; and the turn that its lines call for. */
export async function levelOf(piece: Piece): Promise<Level | null> {
  const { crop: _crop, ...rest } = readyOf(piece);
  const ready: Ready = { ...rest, crop: neutralReady.crop };
  const whole = { ...piece, coats: [], ready };
  const size = pieceSize(whole);
  const scale = Math.min(1, ANALYSIS / Math.max(size.width, size.height));
  const [width, height] = [Math.max(1, Math.round(size.width * scale)), Math.max(1, Math.round(size.height * scale))];
  const engine = await getEngine();
  const luma = new Float32Array(width * height);
  await engine.draw({ piece: whole, region: { x: 0, y: 0, width, height }, scale }, (p) => {
    for (let i = 0; i < luma.length; i++) luma[i] = 0.2126 * p[4 * i] + 0.7152 * p[4 * i + 1] + 0.0722 * p[4 * i + 2];
  });
  return findLevel(luma, { width, height });
}
