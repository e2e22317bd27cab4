import * as z from 'zod';
import { choice, share, slider } from '../../schema';
import { amount, colourFirst, parameter } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'air.stray',
  label: 'Stray light',
  family: 'air',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.08,
  suggest: { blend: 'screen', strength: 0.8 },
  first: [amount(0, [1, 0.7, 0.45]), colourFirst, parameter('heat')],
  help: 'Warm light that got past the camera’s back. On black, for screen.',
  params: z.object({
    from: choice(
      'From',
      [
        { value: 'left', label: 'Left' },
        { value: 'right', label: 'Right' },
        { value: 'top', label: 'Top' },
      ],
      'left',
    ),
    heat: share('Heat', 1, { min: 0.2, max: 1.6, help: 'Up to a white core.' }),
    patches: slider('Patches', 3, 24, 11, { step: 1 }),
  }),
  paint(sheet, { from, heat, patches }) {
    const { random } = sheet;
    const { x, y } = sheet.coordinates();
    const [right, bottom] = [sheet.right, sheet.bottom];
    const [depth, along] = from === 'top' ? [y, x] : [x, y];
    const span = from === 'top' ? right : bottom;
    if (from === 'right') depth.scale(-1, right);
    const wobble = sheet.noise(1.5, { octaves: 4 });
    const light = sheet.plane();
    for (let k = 0; k < Math.round(patches); k++) {
      const [c0, c1] = [random.between(-0.16, 0.1), random.between(0, span)];
      const [r0, r1] = [random.logNormal(0.26, 0.45), random.logNormal(0.2, 0.6)];
      const [hot, p] = [random.power(0.1, 1.3, 1.3) * heat, random.between(1.3, 2.6)];
      const u = depth
        .copy()
        .add(-c0)
        .scale(1 / r0);
      const v = along
        .copy()
        .add(-c1)
        .scale(1 / r1);
      const d = u
        .times(u)
        .add(v.times(v))
        .power(p / 2)
        .times(wobble, 0.07 * p, 1)
        .clamp(0, 12);
      light.add(d.exp(-1.4), hot);
    }
    // Film answers each colour by its own spectrum: red first, blue last.
    const film = (power: number, gain: number) => {
      const o = light.copy().power(power).scale(gain).exp(-0.98).scale(-1, 1);
      return o.times(o, 0.85, 0.12);
    };
    const grain = sheet.white(0.0008);
    const channel = (power: number, gain: number) => film(power, gain).power(0.6).add(grain, 0.006).clamp();
    return { lightness: channel(1, 1), a: channel(1.45, 0.62), b: channel(2.3, 0.42), encoded: true };
  },
});
