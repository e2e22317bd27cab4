import * as z from 'zod';
import { turnBy } from '../../image/motion';
import { share, slider } from '../../schema';
import { activeField, definePart, densityField, invertField, operationField } from '../part';

export const ellipseSchema = z.object({
  kind: z.literal('ellipse'),
  op: operationField,
  active: activeField,
  shape: share('Shape', 0, { help: 'From an ellipse, over rounded corners, to a box.' }),
  cx: slider('Centre across', -0.5, 1.5, 0.5, { accepts: [-1e3, 1e3], unit: '%', factor: 100, step: 0.01 }),
  cy: slider('Centre down', -0.5, 1.5, 0.5, { accepts: [-1e3, 1e3], unit: '%', factor: 100, step: 0.01 }),
  rx: slider('Half width', 0.01, 2, 0.3, { accepts: [1e-4, 1e3], unit: '%', factor: 100, step: 0.01, help: 'In parts of the photo’s width.' }),
  ry: slider('Half height', 0.01, 2, 0.3, { accepts: [1e-4, 1e3], unit: '%', factor: 100, step: 0.01, help: 'In parts of the photo’s height.' }),
  turn: slider('Turn', -180, 180, 0, { unit: '°', step: 1 }),
  /** In a look: laid about the person that is found, see core/looks/around. */
  around: z.literal('subject').optional(),
  feather: share('Feather', 0.5, { help: 'How soft the edge is.' }),
  density: densityField,
  invert: invertField,
});
export type Ellipse = z.output<typeof ellipseSchema>;

/** 1 inside (1 − feather) of the radius, smoothstep to 0 at the radius; centre and radii in fractions of the photo. */
export default definePart({
  kind: 'ellipse',
  label: 'Ellipse or box',
  schema: ellipseSchema,
  ownFeather: true,
  cover({ machine, width, height }, plane, region, p) {
    const turn = (p.turn * Math.PI) / 180;
    machine.kernels.maskEllipse({
      mask: plane,
      tw: region.width,
      th: region.height,
      cx: p.cx * width - region.x,
      cy: p.cy * height - region.y,
      rx: p.rx * width,
      ry: p.ry * height,
      cos: Math.cos(turn),
      sin: Math.sin(turn),
      feather: p.feather,
      density: 1,
      op: 0,
      shape: p.shape,
    });
  },
  moved(p, motion) {
    const { from, to, scale } = motion;
    const [cx, cy] = motion.point([p.cx, p.cy]);
    return { ...p, cx, cy, rx: (p.rx * from.width * scale) / to.width, ry: (p.ry * from.height * scale) / to.height, turn: turnBy(motion, p.turn) };
  },
});
