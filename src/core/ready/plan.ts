import { apply, type Point } from '../image/projection';
import { treatmentByKind } from '../treatments';
import { readiedMap, readiedSize, type Size } from './geometry';
import type { Framing } from './framing';
import { bent, planLens } from './lens';
import { neutralReady, type Ready } from './schema';
import { readyStepList } from './steps';
import { unitOf } from '../image/unit';

export interface PlannedReady {
  framing: Framing;
  /** Parameters of the treatments that ready the photo, in their order. */
  treatments: Record<string, unknown>[];
}

/** Side of the spot that is averaged when a neutral is picked, in u. */
export const SPOT = 5;

const plans = new WeakMap<Ready, { photo: Size; planned: PlannedReady }>();

/** How a photo of a size is readied. The same object for the same readying, so that nothing is compared by its content twice. */
export function planReady(photo: Size, ready?: Ready): PlannedReady {
  if (!ready) {
    const { framing } = planReady(photo, neutralReady);
    return { framing: { ...framing, asIs: true }, treatments: [] };
  }
  const known = plans.get(ready);
  if (known && known.photo.width === photo.width && known.photo.height === photo.height) return known.planned;
  const planned = plan({ width: photo.width, height: photo.height }, ready);
  plans.set(ready, { photo, planned });
  return planned;
}

function plan(photo: Size, ready: Ready): PlannedReady {
  const size = readiedSize(photo, ready);
  const map = readiedMap(photo, ready);
  const lens = planLens(photo, ready.lens);
  const treatments: Record<string, unknown>[] = [];
  // What is left out, or set to undefined, takes its neutral value.
  const add = (kind: string, values: object) => treatments.push(treatmentByKind(kind).schema.parse({ ...values, kind }));
  for (const { field, treatment } of readyStepList) {
    const value: unknown = ready[field];
    if (!treatment || !value) continue;
    if (Array.isArray(value)) value.forEach((values: object) => add(treatment, values));
    else if (field === 'whiteBalance')
      add(
        treatment,
        inFile(value, size, (p) => bent(lens, apply(map, p))),
      );
    else add(treatment, value);
  }
  return { framing: { ...size, map, lens, file: photo }, treatments };
}

/** A white balance with the spot that was picked as grey, in fractions of the readied photo, as a square of the file. */
function inFile({ neutral, ...values }: { neutral?: Point }, size: Size, toFile: (p: Point) => Point): object {
  if (!neutral) return values;
  const [x, y] = toFile([neutral[0] * size.width, neutral[1] * size.height]);
  return { ...values, grey: { x, y, side: Math.max(1, SPOT * unitOf(size)) } };
}
