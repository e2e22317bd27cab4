import { refine } from './guided';
import type { Planes } from '../image/planes';
import type { Hint } from './schema';

/** Radius of a hint's stroke, in parts of the long side. */
const TIP = 0.006;

/**
 * The subject from a few strokes on it and beside it: each pixel goes to the strokes that are nearer by geodesic distance over
 * the photo's colours (Bai & Sapiro 2007), with the map of people as a first guess. The result is snapped to the photo's edges.
 */
export function fromHints(planes: Planes, guide: [number, number, number], hints: readonly Hint[], people: number): number {
  const out = planes.make();
  planes.briefly(() => {
    const long = Math.max(planes.width, planes.height);
    const seeds = (keep: boolean) => {
      const at = planes.make();
      for (const hint of hints.filter((h) => h.keep === keep)) planes.strokeOver(at, hint.points, TIP * long);
      return at;
    };
    const calm = guide.map((plane) => {
      const at = planes.copy(plane);
      planes.blur(at, long / 700);
      return at;
    }) as [number, number, number];
    const [keep, leave] = [seeds(true), seeds(false)];
    if (planes.sum(keep) < 1 || planes.sum(leave) < 1) {
      // With only one kind of stroke, what is connected to it by colour is added to what was found, or taken away.
      const { kernels } = planes.machine;
      kernels.copyWindow(people, planes.width, out, planes.width, planes.width, planes.height);
      const adds = planes.sum(keep) >= 1;
      const near = planes.geodesic(adds ? keep : leave, calm, long * 1.6);
      planes.ramp(near, long * 0.2, long * 0.1);
      if (adds) planes.most(out, near);
      else planes.without(out, near);
    } else {
      const { kernels } = planes.machine;
      const a = planes.geodesic(keep, calm, long * 4);
      const b = planes.geodesic(leave, calm, long * 4);
      // b / (a + b): 1 on the subject, 0 beside it.
      kernels.mixIn(a, b, planes.count, 1, 1, 1e-3);
      kernels.power(a, planes.count, -1);
      planes.times(b, a);
      // The people found weigh in by a fifth at most.
      if (planes.sum(people) > planes.count * 0.01) kernels.mixIn(b, people, planes.count, 1, 0.3, -0.15);
      planes.ramp(b, 0.42, 0.58);
      kernels.copyWindow(b, planes.width, out, planes.width, planes.width, planes.height);
    }
    refine(planes, guide, out, Math.max(2, planes.width / 100));
  });
  return out;
}
