import type { Piece } from '../core/piece/schema';
import { pieceSize } from '../core/ready/geometry';
import { getEngine } from './engine';
import { lookBase, lookEdit, placeNow, type Look } from './looks';

// Pictures of looks on the open photo. Each look is first drawn small, so that all cards are soon there, and then as finely as its card shows it.

/** Long sides of the drawings, in pixels. They are larger than a card: drawn as small, thin cracks break into dots. */
const COARSE = 220;
const FINE = 700;
const CARD = 256;
/** Drawings under way at a time: while one is drawn, materials of the next are made. */
const LANES = 2;
const MOST_PICTURES = 120;

const pictures = new Map<string, ImageBitmap>();

interface Job {
  look: Look;
  piece: Piece;
  side: number;
  key: string;
  signal: AbortSignal;
  show(picture: ImageBitmap): void;
}

const waiting: Record<'coarse' | 'fine', Job[]> = { coarse: [], fine: [] };
let running = 0;

const keyOf = (look: Look, piece: Piece): string => {
  const base = lookBase(piece);
  return JSON.stringify([look.id, placeNow(base), base.photo.key, base.ready, base.guards, base.coats]);
};

/** Shows a look on a piece's photo: first coarsely, then finely. One that was drawn before comes at once. */
export function showLook(look: Look, piece: Piece, signal: AbortSignal, show: (picture: ImageBitmap, isFine: boolean) => void): void {
  const key = keyOf(look, piece);
  const there = pictures.get(key);
  if (there) return show(there, true);
  const job = { look, piece, key, signal };
  waiting.coarse.push({ ...job, side: COARSE, show: (picture) => show(picture, false) });
  waiting.fine.push({ ...job, side: FINE, show: (picture) => show(picture, true) });
  for (let lane = running; lane < LANES; lane++) void work();
}

async function work(): Promise<void> {
  running++;
  for (let job = next(); job; job = next()) {
    const picture = await drawn(job).catch(() => null);
    if (picture && !job.signal.aborted) job.show(picture);
  }
  running--;
}

function next(): Job | undefined {
  for (const list of [waiting.coarse, waiting.fine]) {
    for (let job = list.shift(); job; job = list.shift()) if (!job.signal.aborted) return job;
  }
  return undefined;
}

async function drawn({ look, piece, side, key, signal }: Job): Promise<ImageBitmap | null> {
  const { edit } = await lookEdit(look, piece);
  if (signal.aborted) return null;
  const made = edit(piece);
  const { width, height } = pieceSize(made);
  const scale = Math.min(1, side / Math.max(width, height));
  const region = { x: 0, y: 0, width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
  const image = new ImageData(region.width, region.height);
  await (await getEngine()).draw({ piece: made, region, scale }, (bytes) => image.data.set(bytes), { quick: true });
  // Only the reduced picture is kept: a hundred large ones would fill a phone's memory.
  const k = Math.min(1, CARD / Math.max(region.width, region.height));
  const [resizeWidth, resizeHeight] = [region.width, region.height].map((s) => Math.max(1, Math.round(s * k)));
  const picture = await createImageBitmap(image, { resizeWidth, resizeHeight, resizeQuality: 'high' });
  if (side !== FINE) return picture;
  if (pictures.size >= MOST_PICTURES) pictures.delete(pictures.keys().next().value as string);
  pictures.set(key, picture);
  return picture;
}
