import * as z from 'zod';
import { blurPlane, blurReach } from '../../image/blur';
import { grow, padded } from '../../image/tile';
import { clamp, Random } from '../../materials/random';
import { choice, share, slider } from '../../schema';
import { activeField, definePart, densityField, invertField, operationField } from '../part';

/** From sweep to sweep, in parts of their width. */
const PITCH = 0.62;
/** A wet edge is rounded by a Gaussian of so many u, and cut between these two values. */
const WET = { blur: 8.5, from: 0.44, to: 0.56 };

export const revealSchema = z.object({
  kind: z.literal('reveal'),
  op: operationField,
  active: activeField,
  cover: share('Cover', 0.7, { help: 'How much of the picture is covered.' }),
  margin: share('Clean margin', 0.05, { max: 0.3, help: 'Paper left free at the edges.' }),
  angle: slider('Angle', -90, 90, -18, { unit: '°', step: 1 }),
  width: slider('Width', 30, 400, 165, { unit: 'u', step: 5, help: 'How wide a stroke is.' }),
  dry: share('Dry brush', 0.5, { help: 'Bristles show where it runs dry.' }),
  edge: choice(
    'Edges',
    [
      { value: 'wet', label: 'Wet' },
      { value: 'dry', label: 'Torn' },
    ],
    'wet',
  ),
  centreX: slider('Centre across', 0, 1, 0.5, { unit: '%', factor: 100, step: 0.01, accepts: [-10, 11] }),
  centreY: slider('Centre down', 0, 1, 0.48, { unit: '%', factor: 100, step: 0.01, accepts: [-10, 11] }),
  /** In a look: laid about the person that is found, see core/looks/around. */
  around: z.literal('subject').optional(),
  density: densityField,
  invert: invertField,
  seed: z.number().int().min(0).max(1e9).default(1),
});
type Params = z.output<typeof revealSchema>;

interface Sweep {
  cx: number;
  cy: number;
  half: number;
  wide: number;
  dry: number;
  seed: number;
}

/** Broad strokes of a brush over the middle of the picture: what they cover shows, or hides, with ragged, clean margins. */
export default definePart({
  kind: 'reveal',
  label: 'Broad strokes',
  words: 'reveal brush strokes sweep paint margin border watercolour',
  schema: revealSchema,
  ownFeather: true,
  cover({ machine, scratch, width, height, unit }, plane, region, p) {
    const { kernels } = machine;
    const mark = scratch.mark();
    const rim = p.edge === 'wet' ? blurReach(WET.blur * unit) : 0;
    const wide = grow(region, rim);
    const strokes = scratch.plane(padded(wide.width, wide.height) + 8, 0);
    const turn = (p.angle * Math.PI) / 180;
    const [tx, ty] = [Math.cos(turn), Math.sin(turn)];
    for (const s of sweepsOf(p, width, height, unit)) {
      kernels.sweep({
        plane: strokes,
        w: wide.width,
        h: wide.height,
        cx: s.cx - wide.x,
        cy: s.cy - wide.y,
        tx,
        ty,
        half: s.half,
        wide: s.wide,
        bristle: Math.max(1, 2.2 * unit),
        dry: s.dry,
        soft: Math.max(1, 1.5 * unit),
        seed: s.seed,
      });
    }
    if (rim > 0) {
      blurPlane(machine, scratch, strokes, wide.width, wide.height, WET.blur * unit);
      kernels.smoothstep(strokes, padded(wide.width, wide.height), WET.from, WET.to);
    }
    kernels.copyWindow(strokes + (rim * wide.width + rim) * 4, wide.width, plane, region.width, region.width, region.height);
    scratch.release(mark);
  },
  moved(p, motion) {
    const [centreX, centreY] = motion.point([p.centreX, p.centreY]);
    return { ...p, centreX, centreY };
  },
});

/** Parallel sweeps over an ellipse about the centre, each from its own beginning to its own end, and a few short, dry ones. Pixels. */
function sweepsOf(p: Params, width: number, height: number, unit: number): Sweep[] {
  const random = new Random(p.seed);
  const turn = (p.angle * Math.PI) / 180;
  const [tx, ty] = [Math.cos(turn), Math.sin(turn)];
  const wide = 0.5 * p.width * unit;
  const free = p.margin * Math.max(width, height);
  const [cx, cy] = [p.centreX * width, p.centreY * height];
  // Half axes of what is covered: beyond the corners at full, so that only margins are left.
  const grown = 0.35 + p.cover;
  const [rx, ry] = [grown * (width / 2 - free), grown * (height / 2 - free)];
  // How far the ellipse goes along the strokes and across them.
  const across = Math.hypot(rx * ty, ry * tx);
  const sweeps: Sweep[] = [];
  const add = (at: number, from: number, to: number, size: number, dry: number) => {
    // No stroke leaves the sheet but by the margin.
    const limit = (sign: number) => {
      const [dx, dy] = [sign * tx, sign * ty];
      const [ox, oy] = [cx - ty * at, cy + tx * at];
      const toX = dx > 0 ? (width - free - ox) / dx : dx < 0 ? (free - ox) / dx : Infinity;
      const toY = dy > 0 ? (height - free - oy) / dy : dy < 0 ? (free - oy) / dy : Infinity;
      return Math.min(toX, toY);
    };
    const last = Math.min(to, limit(1) - wide * 0.3);
    const first = Math.max(from, -limit(-1) + wide * 0.3);
    if (last - first < wide) return;
    const middle = (first + last) / 2;
    sweeps.push({
      cx: cx - ty * at + tx * middle,
      cy: cy + tx * at + ty * middle,
      half: (last - first) / 2,
      wide: size,
      dry,
      seed: random.integer(1e6),
    });
  };
  const count = Math.max(1, Math.round((2 * across) / (2 * wide * PITCH)));
  for (let i = 0; i < count; i++) {
    const part = count === 1 ? 0 : (2 * (i + 0.5)) / count - 1;
    const at = part * (across - wide * 0.5);
    const chord = Math.sqrt(Math.max(0.04, 1 - part * part * 0.85)) * Math.hypot(rx * tx, ry * ty);
    const jitter = () => random.between(-0.35, 0.65) * 0.45 * chord;
    add(at, -chord + jitter(), chord - jitter(), wide * random.between(0.85, 1.15), p.dry);
  }
  // Denser about the middle, where the subject is.
  for (let i = 0; i < 14; i++) {
    const at = clamp(random.gauss() * 0.4, -1, 1) * across;
    const [middle, half] = [clamp(random.gauss() * 0.4, -1, 1) * rx, wide * random.between(1.2, 2.8)];
    add(at, middle - half, middle + half, wide * random.between(0.4, 0.8), Math.min(1, p.dry + 0.25));
  }
  return sweeps;
}
