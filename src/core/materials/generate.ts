import type { Machine } from '../image/machine';
import type { Field } from './field';
import type { Material, Paint } from './material';
import { Sheet } from './sheet';

/** Planes a generator may hold at once, its own and the finishing ones. */
const PLANES = 26;
/** Up to this long side, materials with fine lines are made at twice the size. */
const SMALL = 512;

export interface MaterialOrder {
  material: Material;
  params: Record<string, unknown>;
  seed: number;
  width: number;
  height: number;
  /** Width by height of what is wanted, where the sides are a little longer for being multiples of 16. */
  aspect?: number;
  part?: MaterialPart;
}

/** Bytes of working memory for a material of that size, freed after it is made. */
export function materialScratch(width: number, height: number): number {
  if (Math.max(width, height) <= SMALL) return 4 * width * height * 4 * (PLANES + 2) + 8 * 2 ** 20;
  return width * height * 4 * PLANES + 8 * 2 ** 20;
}

/** Which picture of a material is made: as it looks under its light, or its height as grey. */
export type MaterialPart = 'look' | 'height';

/** Bytes a pixel of a picture of a material. */
export const partBytes = (part: MaterialPart = 'look'): number => (part === 'height' ? 8 : 4);

/**
 * Makes a material at `target`, with working memory at `start`: as RGBA8, or its height in 16 bits a channel. Sides are multiples of 16. Parameters are
 * validated.
 */
export function generate(machine: Machine, order: MaterialOrder, target: number, start: number): void {
  const { material, seed, width, height, aspect, part = 'look' } = order;
  const params = material.params.parse(order.params);
  const wrap = material.seamless && width === height;
  const put = part === 'height' ? putHeight : develop;
  if (material.fine && Math.max(width, height) <= SMALL) {
    const twice = start;
    const rest = start + 4 * width * height * partBytes(part);
    const sheet = new Sheet(machine, 2 * width, 2 * height, seed, wrap, rest, materialScratch(width, height) - (rest - start), aspect);
    put(sheet, material.paint(sheet, params), twice);
    (part === 'height' ? machine.kernels.halveDeep : machine.kernels.halve)(twice, 2 * width, 2 * height, target);
    return;
  }
  const sheet = new Sheet(machine, width, height, seed, wrap, start, materialScratch(width, height), aspect);
  put(sheet, material.paint(sheet, params), target);
}

/** The height as grey: its mean mid grey, and a standard deviation this part of black to white, so that materials of all depths are alike. */
const DEVIATION = 0.16;

/** Puts the height of a material; where it has none, how light it is. */
function putHeight({ machine, count }: Sheet, { surface, height, lightness }: Paint, target: number): void {
  const from = surface ?? height ?? lightness;
  const { mean, deviation } = from.moments();
  const scale = DEVIATION / Math.max(1e-9, deviation);
  machine.kernels.greyDeep(from.ptr, target, count, scale, 0.5 - mean * scale);
}

function develop(sheet: Sheet, paint: Paint, target: number): void {
  const { machine, size, count } = sheet;
  const { kernels } = machine;
  const lit = sheet.plane(1);
  const occluded = sheet.plane(1);
  if (paint.height) {
    shine(sheet, paint, paint.height, lit);
    if (paint.occlusion) occlude(sheet, paint.occlusion, paint.height, occluded);
  }
  // Scanner noise belongs to a pixel of a 2048 scan; smaller ones average it.
  const grain = 0.012 * Math.min(1, size / 2048);
  kernels.develop({
    L: paint.lightness.ptr,
    A: paint.a.ptr,
    B: paint.b.ptr,
    lit: lit.ptr,
    ao: occluded.ptr,
    c: paint.contrast ?? 1,
    m: paint.occlusion?.amount ?? 0,
    gain: paint.gain ?? 1,
    noise: grain,
    seed: sheet.seed + 99,
    emit: +!!paint.encoded,
    dst: target,
    count,
  });
}

function shine(sheet: Sheet, paint: Paint, height: Field, lit: Field): void {
  const { kernels } = sheet.machine;
  const azimuth = paint.azimuth ?? -2.25;
  const elevation = paint.elevation ?? 0.65;
  const lx = Math.cos(azimuth) * Math.cos(elevation);
  const ly = Math.sin(azimuth) * Math.cos(elevation);
  kernels.light({
    height: height.ptr,
    dst: lit.ptr,
    w: sheet.width,
    h: sheet.height,
    size: sheet.size,
    lx,
    ly,
    lz: Math.sin(elevation),
    wrap: +sheet.wrap,
  });
  if (paint.translucency) {
    const [share, spread] = paint.translucency;
    const soft = lit.copy().blur(spread);
    lit.scale(1 - share).add(soft, share);
    sheet.release(soft);
  }
  if (paint.shadow) {
    const shade = sheet.plane();
    const reach = Math.max(1, Math.round(paint.shadow.reach * sheet.size));
    const soft = Math.max(0.6, sheet.size / 1024);
    const { width, height: rows, size, wrap } = sheet;
    kernels.castShadow({
      height: height.ptr,
      dst: shade.ptr,
      w: width,
      h: rows,
      size,
      lx: Math.cos(azimuth),
      ly: Math.sin(azimuth),
      slope: Math.tan(elevation),
      reach,
      soft,
      wrap: +wrap,
    });
    shade.blur(0.0007).scale(1 - paint.shadow.low, paint.shadow.low);
    lit.times(shade);
    sheet.release(shade);
  }
}

/** Ambient occlusion after the rule exp(−k1·max(0, blur(h, s1) − h) − k2·max(0, blur(h, s2) − h)), h in px at 1024. */
function occlude(sheet: Sheet, o: NonNullable<Paint['occlusion']>, height: Field, out: Field): void {
  const pits = (radius: number, k: number) =>
    sheet.scope(() =>
      height
        .copy()
        .blur(radius)
        .add(height, -1)
        .clamp(0, 1)
        .scale(-k * 1024),
    );
  const near = pits(o.s1 ?? 0.003, o.k1);
  const far = pits(o.s2 ?? 0.008, o.k2);
  out.scale(0).add(near).add(far).exp();
  sheet.release(near, far);
}
