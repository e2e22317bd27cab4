import * as z from 'zod';
import { share, slider } from '../../schema';
import { parameter } from '../first';
import type { Field } from '../field';
import { defineMaterial } from '../material';
import type { Sheet } from '../sheet';

export default defineMaterial({
  id: 'wear.tape',
  label: 'Old tape',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'square',
  luma: 0.95,
  suggest: { blend: 'multiply', strength: 0.9 },
  first: [parameter('strips'), parameter('yellow'), parameter('size')],
  help: 'Strips of yellowed tape, and the stain that others have left. White around, for multiply.',
  params: z.object({
    strips: slider('Strips', 1, 8, 4, { step: 1 }),
    yellow: share('Yellowed', 0.7),
    size: slider('Size', 0.5, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { strips, yellow, size }) {
    const { random } = sheet;
    const torn = sheet.noise(70, { octaves: 4, gain: 0.7 });
    const tape = sheet.plane();
    const stain = sheet.plane();
    const rim = sheet.plane();
    for (let i = 0; i < Math.round(strips); i++) {
      // The first ones at the corners, where tape holds things.
      const corner = i < 4 ? [i % 2, Math.floor(((i + 1) % 4) / 2)] : [random.next(), random.next()];
      const place = corner.map((v) => 0.5 + (v - 0.5) * 0.86 + 0.03 * random.gauss());
      const angle = i < 4 ? (corner[0] === corner[1] ? -0.78 : 0.78) + 0.15 * random.gauss() : random.between(0, 3.14);
      const inside = strip(sheet, place as [number, number], angle, [0.11 * size * random.between(0.7, 1.3), 0.036 * size], torn);
      const gone = random.chance(0.35);
      const sheetOf = inside.copy().step(-0.0004, 0.0005);
      if (gone) stain.max(sheetOf.times(sheet.noise(9, { octaves: 5, gain: 0.7 }).scale(0.25, 0.75).clamp(0, 1)));
      else {
        tape.max(sheetOf);
        rim.max(
          inside
            .abs()
            .scale(-1 / 0.0016)
            .exp(),
        );
      }
    }
    const cloudy = sheet.noise(14, { octaves: 5, gain: 0.66 });
    const creases = sheet
      .noise(30, { octaves: 3, stretch: [0.25, 1] })
      .abs()
      .scale(-2.4, 1)
      .clamp()
      .power(3);
    const age = sheet.noise(5, { octaves: 5 }).scale(0.18, 0.82).clamp(0.2, 1.4);
    const bubble = cloudy.copy().step(0.9, 1.6);
    const old = tape.copy().times(age);
    return {
      lightness: sheet
        .plane(98)
        .add(old, -20 * yellow - 3)
        .add(bubble.times(tape), 4)
        .add(creases.times(tape), -5)
        .add(stain, -14 * yellow)
        .add(rim, -11)
        .add(sheet.white(0.001), 0.25)
        .clamp(20, 99),
      a: old
        .copy()
        .scale(7 * yellow, 0.2)
        .add(stain, 6 * yellow),
      b: old
        .scale(31 * yellow, 1)
        .add(stain, 22 * yellow)
        .add(rim, 4),
    };
  },
});

/** How far inside a strip a point lies; its short ends are torn. */
function strip(sheet: Sheet, [cx, cy]: [number, number], angle: number, [long, wide]: [number, number], torn: Field): Field {
  const { x, y } = sheet.coordinates();
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const along = x
    .copy()
    .scale(c, -cx * c)
    .add(y, s, -cy * s);
  const across = y.scale(c, -cy * c).add(x, -s, cx * s);
  const side = across.abs().scale(-1, wide).add(torn, 0.00012);
  return along.abs().scale(-1, long).add(torn, 0.0016).min(side);
}
