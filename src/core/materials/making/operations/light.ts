import { grown, isSame } from '../frame';
import { defineOperation, type Making } from '../operation';

// Light on a height, which is given in fractions of the long side.

/** Draws over all of what is read of the height, and keeps the region that is wanted. */
function onHeight({ machine, inputs, region, out, grab }: Making, draw: (at: { height: number; dst: number; w: number; h: number }) => void): void {
  const { ptr, region: from } = inputs[0];
  const { width: w, height: h } = from;
  const dst = isSame(from, region) ? out[0] : grab(w * h * 4);
  draw({ height: ptr, dst, w, h });
  if (dst !== out[0]) machine.kernels.cropPlane(dst, w, region.x - from.x, region.y - from.y, out[0], region.width, region.height);
}

interface LightParams {
  azimuth: number;
  elevation: number;
}

const directionOf = ({ azimuth, elevation }: LightParams) => ({
  lx: Math.cos(azimuth) * Math.cos(elevation),
  ly: Math.sin(azimuth) * Math.cos(elevation),
  lz: Math.sin(elevation),
});

/** Lambert light: 1 on flat ground. */
export const lit = defineOperation<LightParams>({
  name: 'lit',
  reads: (_, _frame, region) => grown(region, 1),
  run: (making, params) => {
    const { machine, frame, wrap } = making;
    onHeight(making, (at) => machine.kernels.light({ ...at, size: frame.size, ...directionOf(params), wrap: +wrap }));
  },
});

interface ShadowParams extends LightParams {
  /** How far a shadow is looked for, in fractions of the long side. */
  reach: number;
}

/** Soft cast shadow: 0 in full shadow, 1 in light. */
export const shadowed = defineOperation<ShadowParams>({
  name: 'shadowed',
  reads: ({ reach }, frame, region) => grown(region, Math.max(1, Math.round(reach * frame.size)) + 1),
  run: (making, { azimuth, elevation, reach }) => {
    const { machine, frame, wrap } = making;
    onHeight(making, (at) =>
      machine.kernels.castShadow({
        ...at,
        size: frame.size,
        lx: Math.cos(azimuth),
        ly: Math.sin(azimuth),
        slope: Math.tan(elevation),
        reach: Math.max(1, Math.round(reach * frame.size)),
        soft: Math.max(0.6, frame.size / 1024),
        wrap: +wrap,
      }),
    );
  },
});

interface EmbossParams {
  /** How far apart the lit and the shaded side lie, in fractions of the long side. */
  dx: number;
  dy: number;
  gain: number;
}

/** Mid grey, lighter where a height rises against (dx, dy). */
export const embossed = defineOperation<EmbossParams>({
  name: 'embossed',
  reads: ({ dx, dy }, frame, region) => grown(region, Math.ceil((Math.max(Math.abs(dx), Math.abs(dy)) * frame.size) / 2) + 2),
  run: (making, { dx, dy, gain }) => {
    const { machine, frame, wrap } = making;
    onHeight(making, ({ height, dst, w, h }) => machine.kernels.emboss(height, dst, w, h, dx * frame.size, dy * frame.size, gain, +wrap));
  },
});
