import { blurPlane } from './blur';
import type { Machine } from './machine';
import type { Scratch, Tile } from './tile';

/** Which way the edges of a picture run, over a tile: unit vectors along them, and how much of one direction there is, 0..1. Planes. */
export interface Flow {
  tx: number;
  ty: number;
  share: number;
}

/**
 * The flow of a tile from its structure tensor (Brox et al. 2006; Kyprianidis & Kang 2011), in memory that the caller releases.
 *
 * @param sigma - Standard deviation of the tensor's Gaussian, in pixels.
 * @param further - That of a second one over the directions, weighed by how strong they are, which takes out their noise; none at 0.
 */
export function flowField(machine: Machine, scratch: Scratch, tile: Tile, sigma: number, further = 0): Flow {
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const [tx, ty, share] = Array.from({ length: 3 }, () => scratch.plane(count + 8));
  kernels.structureTensor(ptr, stride, width, height, tx, ty, share);
  for (const plane of [tx, ty, share]) blurPlane(machine, scratch, plane, width, height, sigma);
  kernels.flowOf(tx, ty, share, count, +(further > 0));
  if (further > 0) for (const plane of [tx, ty]) blurPlane(machine, scratch, plane, width, height, further);
  kernels.halfAngles(tx, ty, count);
  return { tx, ty, share };
}

/** Pixels between two samples of a blur along a flow. */
const stepAlong = (sigma: number): number => (sigma > 3 ? 1.5 : 1);

/** One plane along a flow, by a Gaussian of `sigma` pixels. In place. */
export function blurPlaneAlong(
  machine: Machine,
  scratch: Scratch,
  plane: number,
  { width, height, count }: Tile,
  { tx, ty }: Pick<Flow, 'tx' | 'ty'>,
  sigma: number,
): void {
  const mark = scratch.mark();
  const src = scratch.take(count * 16 + 64);
  machine.kernels.interleave(plane, 0, count, src, 1);
  const step = stepAlong(sigma);
  machine.kernels.blurAlong({ src, w: width, h: height, tx, ty, sigma, ease: 0, step, dst: plane, stride: 0, planes: 1, y0: 0, y1: height });
  scratch.release(mark);
}

/** A tile's colours along its flow: line integral convolution with a Gaussian of `sigma` pixels, eased by a plane or everywhere. In place. */
export function blurAlong(machine: Machine, scratch: Scratch, tile: Tile, { tx, ty }: Flow, sigma: number, ease = 0): void {
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const src = scratch.take(count * 16 + 64);
  machine.kernels.interleave(ptr, stride, count, src, 3);
  const along = {
    src,
    w: width,
    h: height,
    tx,
    ty,
    sigma,
    ease,
    step: stepAlong(sigma),
    dst: ptr,
    stride,
    planes: 3,
  };
  machine.inBands(height, (y0, y1) => machine.kernels.blurAlong({ ...along, y0, y1 }));
  scratch.release(mark);
}

/** How edges are sharpened across a flow, in pixels. */
export interface Sharpening {
  /** Standard deviation of the luma that is looked at. */
  soften: number;
  /** How far its curvature is measured to both sides, */
  probe: number;
  /** and how far colours are fetched. */
  reach: number;
  amount: number;
}

/** Edges of a tile made crisp by fetching whole colours from across the flow (shock filtering, Kyprianidis & Kang 2011). In place. */
export function sharpenAcross(
  machine: Machine,
  scratch: Scratch,
  tile: Tile,
  { tx, ty }: Flow,
  { soften, probe, reach, amount }: Sharpening,
  ease = 0,
): void {
  if (amount <= 0) return;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const luma = scratch.plane(count + 8);
  machine.kernels.lumaPlane(ptr, stride, luma, count);
  blurPlane(machine, scratch, luma, width, height, soften);
  const planes = scratch.take(4 * count * 4);
  for (let c = 0; c < 3; c++) machine.bytes.copyWithin(planes + c * count * 4, ptr + c * stride, ptr + c * stride + count * 4);
  machine.bytes.copyWithin(planes + 3 * count * 4, luma, luma + count * 4);
  const src = scratch.take(count * 16 + 64);
  machine.kernels.interleave(planes, count * 4, count, src, 4);
  machine.kernels.sharpenAcross({ src, w: width, h: height, tx, ty, probe, reach, full: FULL, amount, ease, dst: ptr, stride });
  scratch.release(mark);
}

/** Curvature of luma from which an edge is sharpened in full: four levels. */
const FULL = 4 / 255;
