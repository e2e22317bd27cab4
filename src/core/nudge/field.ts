import type { Machine } from '../image/machine';
import { nudges, type NudgeStroke } from './schema';

/** Distance between values of a field, in u: small against any tip, and the same at every scale. */
export const CELL = 2;
/** Dabs lie this part of a tip's size apart; pushes are passed on whole, the others as often as this. */
const SPACING = 1 / 12;
/** A push of more than this part of the size would fold the picture: it is done in several. */
const LONGEST = 1 / 12;
/** Degrees that a dab turns at full strength, in radians. */
const TURN = 0.12;
/** What one dab of those that build up does at full strength. */
const BUILD = 0.5;

/** Offsets over a readied photo: planes of across, down and held, one after another, f32 in u. */
export interface NudgeField {
  at: number;
  columns: number;
  rows: number;
}

/** @param frame - Size of the readied photo in u. */
export const nudgeSize = ({ width, height }: { width: number; height: number }) => ({
  columns: Math.ceil(width / CELL) + 1,
  rows: Math.ceil(height / CELL) + 1,
});
export const planeOfNudge = ({ columns, rows }: Pick<NudgeField, 'columns' | 'rows'>): number => Math.ceil((columns * rows * 4) / 16) * 16;
export const nudgeBytes = (size: Pick<NudgeField, 'columns' | 'rows'>): number => 3 * planeOfNudge(size) + 64;
export const nudgeScratch = ({ columns, rows }: Pick<NudgeField, 'columns' | 'rows'>): number => columns * rows * 16 + 64;

/** Where a field stands: how many whole strokes are in it, and of the next one how many points and what was left to the next dab. */
export interface NudgeProgress {
  strokes: number;
  points: number;
  left: number;
}
export const NOT_BEGUN: NudgeProgress = { strokes: 0, points: 0, left: 0 };

export interface NudgeOrder {
  strokes: readonly NudgeStroke[];
  field: NudgeField;
  /** Size of the readied photo in u. */
  frame: { width: number; height: number };
  /** Another field of that size that it goes on from, and how far that is. */
  from?: { at: number; progress: NudgeProgress };
}

/** Draws a field from its strokes. Each dab is a small smooth map without folds, and so is all of it together. @returns how far it is */
export function drawNudge(machine: Machine, { strokes, field, frame, from }: NudgeOrder, work: number): NudgeProgress {
  const { kernels, bytes } = machine;
  const plane = planeOfNudge(field);
  if (from) bytes.copyWithin(field.at, from.at, from.at + 3 * plane);
  else bytes.fill(0, field.at, field.at + 3 * plane);
  let progress = from?.progress ?? NOT_BEGUN;
  for (let i = progress.strokes; i < strokes.length; i++) {
    const stroke = strokes[i];
    const last = i === strokes.length - 1;
    const begun = i === progress.strokes ? progress : NOT_BEGUN;
    const { size, does, strength, points } = stroke;
    const kind = nudges.findIndex(({ value }) => value === does);
    const dab = (x: number, y: number, k: number, a = 0, b = 0) =>
      kernels.nudgeDab({
        ux: field.at,
        uy: field.at + plane,
        hold: field.at + 2 * plane,
        w: field.columns,
        h: field.rows,
        cell: CELL,
        cx: x / CELL,
        cy: y / CELL,
        radius: size / 2 / CELL,
        does: kind,
        a,
        b,
        k,
        work,
      });
    const place = (n: number) => [points[n][0] * frame.width, points[n][1] * frame.height] as const;
    let left = begun.left;
    for (let n = begun.points; n < points.length; n++) {
      const pressure = points[n][2];
      const [x, y] = place(n);
      if (n === 0) {
        if (does !== 'push') dab(x, y, does === 'turn' ? pressure : Math.abs(strength) * BUILD * pressure, does === 'turn' ? TURN * strength : 0);
        left = size * SPACING;
        continue;
      }
      const [px, py] = place(n - 1);
      const length = Math.hypot(x - px, y - py);
      if (length === 0) continue;
      const [dx, dy] = [(x - px) / length, (y - py) / length];
      if (does === 'push') {
        const steps = Math.max(1, Math.ceil(length / (size * LONGEST)));
        for (let s = 0; s < steps; s++) {
          const at = (length * (s + 1)) / steps;
          dab(px + dx * at, py + dy * at, Math.abs(strength) * pressure, (dx * length) / steps, (dy * length) / steps);
        }
        continue;
      }
      let way = left;
      for (; way <= length; way += size * SPACING) {
        const [qx, qy] = [px + dx * way, py + dy * way];
        if (does === 'turn') dab(qx, qy, pressure, TURN * strength);
        else dab(qx, qy, Math.abs(strength) * BUILD * pressure);
      }
      left = way - length;
    }
    progress = last ? { strokes: i, points: points.length, left } : { strokes: i + 1, points: 0, left: 0 };
  }
  return progress;
}

/** True when all that lies in a field belongs to strokes, as far as these were drawn: they have only been added to. */
export function drawnIn(
  { strokes: before, progress }: { strokes: readonly NudgeStroke[]; progress: NudgeProgress },
  strokes: readonly NudgeStroke[],
): boolean {
  const { strokes: whole, points } = progress;
  if (strokes.length < Math.min(before.length, whole + 1)) return false;
  for (let i = 0; i < whole; i++) if (before[i] !== strokes[i]) return false;
  const [old, now] = [before[whole], strokes[whole]];
  if (!old || !now) return true;
  const isSame = old.does === now.does && old.size === now.size && old.strength === now.strength;
  return isSame && now.points.length >= points && now.points[points - 1] === old.points[points - 1] && now.points[0] === old.points[0];
}
