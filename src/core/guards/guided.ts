import type { Planes } from '../image/planes';

/** Slopes on red, green and blue and an offset, planes: a mask as a linear model of the picture about each pixel. */
export interface GuidedModel {
  slopes: [number, number, number];
  offset: number;
}

/**
 * Snaps a mask to the edges of a picture with the guided filter with a colour guide (He, Sun & Tang 2013, §3.5). `guide` are its planes of red,
 * green and blue, `radius` in pixels; `eps` is the variance of a colour below which a difference is no edge.
 */
export function guidedModel(planes: Planes, guide: readonly [number, number, number], mask: number, radius: number, eps: number): GuidedModel {
  const [r, g, b] = guide;
  const { kernels } = planes.machine;
  const out: GuidedModel = { slopes: [planes.make(), planes.make(), planes.make()], offset: planes.make() };
  planes.briefly(() => {
    const mean = (a: number) => planes.mean(a, radius);
    const meanOf = (p: number, q: number) => {
      const at = planes.make();
      planes.briefly(() => planes.put(mean(planes.product(p, q)), at));
      return at;
    };
    const means = { r: mean(r), g: mean(g), b: mean(b) };
    const products = { rr: meanOf(r, r), rg: meanOf(r, g), rb: meanOf(r, b), gg: meanOf(g, g), gb: meanOf(g, b), bb: meanOf(b, b) };
    const [pr, pg, pb] = [meanOf(r, mask), meanOf(g, mask), meanOf(b, mask)];
    const offset = mean(mask);
    kernels.guidedColour({ ...means, ...products, pr, pg, pb, p: offset, count: planes.count, eps });
    [pr, pg, pb].forEach((plane, i) => planes.briefly(() => planes.put(mean(plane), out.slopes[i])));
    planes.put(mean(offset), out.offset);
  });
  return out;
}

/** Applies the model to a picture; the result is a new plane of 0..1. */
export function applyModel(planes: Planes, [r, g, b]: readonly [number, number, number], { slopes, offset }: GuidedModel): number {
  const out = planes.make();
  const [ar, ag, ab] = slopes;
  planes.machine.kernels.applyGuided({ r, g, b, ar, ag, ab, offset, dst: out, count: planes.count });
  return out;
}

/** Snaps a plane to the edges of the guide, in place. */
export function refine(planes: Planes, guide: readonly [number, number, number], plane: number, radius: number, eps = 1e-4): void {
  planes.briefly(() => {
    const out = applyModel(planes, guide, guidedModel(planes, guide, plane, radius, eps));
    planes.put(out, plane);
  });
}
