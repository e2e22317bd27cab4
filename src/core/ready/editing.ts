import { cropMap, outline, quarteredSize, type Size } from './geometry';
import { apply, invert, turned, type Point } from '../image/projection';
import { room } from './frame';
import type { Crop, Ready } from './schema';

/** The frame in which a crop is set: all of the photo, turned as the crop is, so that the crop lies upright in it. */
export function editingCrop(photo: Size, ready: Ready): Crop {
  const size = quarteredSize(photo, ready);
  const back = turned(-ready.crop.turn);
  const points = outline(photo, ready).map((p) => apply(back, p));
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const [cx, cy] = apply(turned(ready.crop.turn), [(left + right) / 2, (top + bottom) / 2]);
  const [w, h] = [right - left, bottom - top];
  return { x: (cx - w / 2) / size.width, y: (cy - h / 2) / size.height, w: w / size.width, h: h / size.height, turn: ready.crop.turn };
}

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

const editing = (photo: Size, ready: Ready): Ready => ({ ...ready, crop: editingCrop(photo, ready) });

/** The crop as an upright box in pixels of the editing frame. */
export function boxOf(photo: Size, ready: Ready): Box {
  const size = quarteredSize(photo, ready);
  const { crop } = ready;
  const centre: Point = [(crop.x + crop.w / 2) * size.width, (crop.y + crop.h / 2) * size.height];
  const [x, y] = apply(invert(cropMap(photo, editing(photo, ready))), centre);
  const [a, b] = [(crop.w * size.width) / 2, (crop.h * size.height) / 2];
  return { left: x - a, top: y - b, right: x + a, bottom: y + b };
}

/** The crop that an upright box of the editing frame stands for. */
export function cropOfBox(photo: Size, ready: Ready, box: Box): Crop {
  const size = quarteredSize(photo, ready);
  const [x, y] = apply(cropMap(photo, editing(photo, ready)), [(box.left + box.right) / 2, (box.top + box.bottom) / 2]);
  const [w, h] = [(box.right - box.left) / size.width, (box.bottom - box.top) / size.height];
  return { x: x / size.width - w / 2, y: y / size.height - h / 2, w, h, turn: ready.crop.turn };
}

/** Whether a crop has no empty corner, to a thousandth of its size. */
export function fits(photo: Size, ready: Ready, crop: Crop): boolean {
  const size = quarteredSize(photo, ready);
  const centre: Point = [(crop.x + crop.w / 2) * size.width, (crop.y + crop.h / 2) * size.height];
  return room(outline(photo, ready), centre, (crop.w * size.width) / 2, (crop.h * size.height) / 2, crop.turn) >= 0.999;
}

/** As far on the way from one box to another as the crop still has no empty corner. */
export function reach(photo: Size, ready: Ready, from: Box, to: Box): Box {
  const at = (t: number): Box => ({
    left: from.left + (to.left - from.left) * t,
    top: from.top + (to.top - from.top) * t,
    right: from.right + (to.right - from.right) * t,
    bottom: from.bottom + (to.bottom - from.bottom) * t,
  });
  const good = (t: number) => fits(photo, ready, cropOfBox(photo, ready, at(t)));
  if (good(1)) return to;
  let [low, high] = [0, 1];
  for (let i = 0; i < 14; i++) {
    const middle = (low + high) / 2;
    if (good(middle)) low = middle;
    else high = middle;
  }
  return at(low);
}

export type Grip = 'n' | 'e' | 's' | 'w' | 'ne' | 'se' | 'sw' | 'nw';
const LEAST = 16;

/** A box with a side or corner pulled by (dx, dy), never thinner than 16 px; with a ratio, its opposite side or corner stays. */
export function pull(box: Box, grip: Grip, dx: number, dy: number, ratio: number | null): Box {
  const out = { ...box };
  if (grip.includes('w')) out.left = Math.min(box.right - LEAST, box.left + dx);
  if (grip.includes('e')) out.right = Math.max(box.left + LEAST, box.right + dx);
  if (grip.includes('n')) out.top = Math.min(box.bottom - LEAST, box.top + dy);
  if (grip.includes('s')) out.bottom = Math.max(box.top + LEAST, box.bottom + dy);
  if (ratio === null) return out;
  const width = out.right - out.left;
  const height = out.bottom - out.top;
  if (grip === 'n' || grip === 's') {
    const middle = (box.left + box.right) / 2;
    return { ...out, left: middle - (height * ratio) / 2, right: middle + (height * ratio) / 2 };
  }
  if (grip === 'e' || grip === 'w') {
    const middle = (box.top + box.bottom) / 2;
    return { ...out, top: middle - width / ratio / 2, bottom: middle + width / ratio / 2 };
  }
  const w = Math.max(width, height * ratio);
  if (grip.includes('w')) out.left = out.right - w;
  else out.right = out.left + w;
  if (grip.includes('n')) out.top = out.bottom - w / ratio;
  else out.bottom = out.top + w / ratio;
  return out;
}

/** What a line drawn along something level or upright says the turn should be: by its angle to the nearer axis. */
export function turnByLine(turn: number, [x0, y0]: Point, [x1, y1]: Point): number {
  const angle = (Math.atan2(y1 - y0, x1 - x0) * 180) / Math.PI;
  const off = angle - 90 * Math.round(angle / 90);
  return Math.min(45, Math.max(-45, Math.round((turn + off) * 100) / 100));
}
