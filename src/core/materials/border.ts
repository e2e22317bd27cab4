import type { Field } from './field';
import type { Sheet } from './sheet';

/** Distance of every point to the nearest border, in fractions of the long side. */
export function borderDistance(sheet: Sheet): Field {
  const { x, y } = sheet.coordinates();
  const far = (f: Field, end: number) => f.copy().scale(-1, end);
  const across = far(x, sheet.right).min(x);
  return far(y, sheet.bottom).min(y).min(across);
}

/** A worn border: 1 outside, 0 inside, `reach` wide, its outline rough at three scales so that no line of it runs parallel to the frame. */
export function roughBorder(sheet: Sheet, reach: number, rough: number): Field {
  const d = borderDistance(sheet)
    .add(sheet.noise(2.3, { octaves: 4 }), 0.012 * rough)
    .add(sheet.noise(11, { octaves: 5, gain: 0.66 }), 0.008 * rough)
    .add(sheet.noise(70, { octaves: 3, gain: 0.6 }), 0.0016 * rough);
  return d.step(reach - 0.005, reach + 0.005).scale(-1, 1);
}
