import * as z from 'zod';
import { slider, share } from '../../schema';
import { awayFromEnds, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { MaterialLight } from '../sheetLight';
import type { Field } from '../field';
import { lines } from '../nets';

/** Lengths are given in pixels of a sheet of this side. */
const SHEET = 2000;
/** A uniform spread of ±1 has this deviation. */
const UNIFORM = 1 / Math.sqrt(3);
const px = (label: string, least: number, most: number, neutral: number, step: number, help: string) =>
  slider(label, least, most, neutral, { step, unit: 'px', help });

/** Skin grain from scratch as retouchers make it (common practice, no source): grey, uniform noise, a little blur, emboss; pores and cells on top. */
export default defineMaterial({
  id: 'skin.made',
  label: 'Skin from noise',
  family: 'skin',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.5,
  suggest: { blend: 'overlay', strength: 0.8 },
  start: { limits: [0.08, 0.3, 0.75, 0.95] },
  first: [parameter('gain'), raised(0.4, 1), parameter('pores'), parameter('cells'), awayFromEnds],
  help: 'Grey, noise, a little blur and emboss: skin grain made from scratch.',
  params: z.object({
    noise: share('Noise', 0.1, { min: 0.02, max: 0.5, help: 'How strong the noise is from which it is made.' }),
    soften: px('Soften', 0.5, 12, 1, 0.1, 'Coarser grain the more it is softened.'),
    offset: px('Emboss width', 1, 20, 6, 0.5, 'How far apart the lit and the shaded side lie.'),
    gain: share('Emboss', 0.6, { max: 4, help: 'How strongly the grain stands out.' }),
    angle: slider('Emboss from', 0, 360, 45, {
      unit: '°',
      step: 1,
      dial: true,
      absent: ({ light }) => ((light as MaterialLight | undefined)?.from ?? 'own') !== 'own',
    }),
    pores: share('Pores', 0, { help: 'Small pits.' }),
    poreSize: px('Pore size', 2, 20, 6, 0.5, 'How wide a pore is.'),
    cells: share('Cells', 0, { help: 'Fine lines between cells, as on a cheek.' }),
    cellSize: px('Cell size', 8, 80, 20, 1, 'How far apart the lines are.'),
    stretch: slider('Stretched', 1, 3, 1, { step: 0.05, help: 'Grain drawn out to one side, as on a neck.' }),
  }),
  paint(sheet, p) {
    const unit = 1 / SHEET;
    // A Gaussian of σ pixels leaves this part of the deviation of white noise.
    const left = 1 / (2 * Math.sqrt(Math.PI) * Math.max(p.soften, 0.5));
    const grain = (sigma: number) => sheet.white(sigma * unit, sigma * unit * p.stretch);
    // A little stays sharper: no skin is smooth at any size.
    const height = grain(p.soften)
      .add(grain(p.soften / 3), 0.25)
      .scale(p.noise * UNIFORM * left);
    if (p.cells > 0) {
      const warp = () => sheet.noise(4, { octaves: 3 }).scale(0.008);
      const [warpX, warpY] = [warp(), warp()];
      const { first, second } = lines(sheet, SHEET / p.cellSize, 0.6, p.stretch, warpX, warpY);
      const furrow: Field = second
        .add(first, -1)
        .scale(1 / 0.22)
        .power(1.3)
        .exp(-1);
      height.add(furrow, -0.02 * p.cells);
    }
    if (p.pores > 0) {
      const anywhere = sheet.noise(9, { octaves: 2 }).scale(0.2, 0.6).clamp();
      const count = Math.round(9000 * p.pores * (6 / p.poreSize) ** 1.2);
      const spots = sheet.scatter(count, anywhere, 1.5, -1).map(({ x, y, random }) => ({
        x,
        y,
        r: (p.poreSize / 2) * unit * random.logNormal(1, 0.3),
        lobes: 0.6,
        long: random.between(1, 1 + 0.4 * p.stretch),
        angle: random.between(0, 3.14),
        value: random.between(0.4, 1),
      }));
      height.add(sheet.spots(spots, 0.9), -0.03);
    }
    const grey = () => sheet.plane(0.5);
    return {
      lightness: grey(),
      a: grey(),
      b: grey(),
      encoded: true,
      height,
      // At 0° the light comes from above.
      azimuth: ((p.angle - 90) * Math.PI) / 180,
      emboss: { width: p.offset * unit, gain: p.gain },
    };
  },
});
