import * as z from 'zod';
import { slider } from '../../schema';
import { dark, follow, parameter } from '../first';
import { defineMaterial } from '../material';
import { weaveCloth } from '../weave';

export default defineMaterial({
  id: 'cloth.mesh',
  label: 'Fishing net gauze',
  family: 'cloth',
  seamless: true,
  unlit: true,
  fine: true,
  shape: 'square',
  luma: 0.25,
  suggest: { blend: 'screen', strength: 0.3 },
  first: [dark(0.35), follow, parameter('threads')],
  help: 'Pale thin threads far apart over black; for screen, a veil over the picture.',
  params: z.object({
    threads: slider('Threads', 40, 150, 84, { step: 2, help: 'Threads along the long side.' }),
    thickness: slider('Thickness', 0.08, 0.3, 0.17, { step: 0.01 }),
    slack: slider('Slack', 0, 2, 1, { step: 0.05, help: 'How far it has been pulled about.' }),
  }),
  paint(sheet, { threads, thickness, slack }) {
    const {
      height: cloth,
      tone,
      fibre,
    } = weaveCloth(sheet, {
      threads: 2 * Math.round(threads / 2),
      offset: 0.08 * slack,
      width: [thickness, 0.22],
      jitter: 0.16 * slack,
      wobble: 0.14,
      slubs: 0.25,
      slubLength: 1.4,
      bow: 0.4,
      gap: -1.4,
      twist: 0.1,
      bend: 0.03 * slack,
    });
    const thread = cloth.copy().step(-0.9, -0.1);
    // Round threads, lighter on their crowns, with loose hairs.
    const crown = cloth.copy().step(-0.6, 0.75).scale(0.55, 0.45);
    const hair = sheet.fibres(2600, { length: 0.012, half: 0.00013, curvature: 110, value: 0.4 });
    const light = tone
      .scale(0.05, 0.42)
      .add(fibre, 0.14)
      .times(crown)
      .times(thread)
      .max(hair.scale(0.3))
      .add(thread.copy().blur(0.002), 0.06)
      .add(sheet.white(0.001), 0.004)
      .scale(0.9, 0.02)
      .clamp();
    return { lightness: light.copy(), a: light.copy().scale(0.98), b: light.scale(0.92), encoded: true };
  },
});
