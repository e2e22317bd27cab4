import { grown } from '../frame';
import { defineOperation } from '../operation';

// Light on a height, which is given in fractions of the long side.

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
  run: ({ machine, frame, inputs, region, out, wrap, grab }, params) => {
    const { ptr, region: from } = inputs[0];
    const { width, height } = from;
    const isAll = width === region.width && height === region.height;
    const dst = isAll ? out[0] : grab(width * height * 4);
    machine.kernels.light({ height: ptr, dst, w: width, h: height, size: frame.size, ...directionOf(params), wrap: +wrap });
    if (!isAll) machine.kernels.cropPlane(dst, width, region.x - from.x, region.y - from.y, out[0], region.width, region.height);
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
  run: ({ machine, frame, inputs, region, out, wrap, grab }, { azimuth, elevation, reach }) => {
    const { ptr, region: from } = inputs[0];
    const { width, height } = from;
    const isAll = width === region.width && height === region.height;
    const dst = isAll ? out[0] : grab(width * height * 4);
    machine.kernels.castShadow({
      height: ptr,
      dst,
      w: width,
      h: height,
      size: frame.size,
      lx: Math.cos(azimuth),
      ly: Math.sin(azimuth),
      slope: Math.tan(elevation),
      reach: Math.max(1, Math.round(reach * frame.size)),
      soft: Math.max(0.6, frame.size / 1024),
      wrap: +wrap,
    });
    if (!isAll) machine.kernels.cropPlane(dst, width, region.x - from.x, region.y - from.y, out[0], region.width, region.height);
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
  run: ({ machine, frame, inputs, region, out, wrap, grab }, { dx, dy, gain }) => {
    const { ptr, region: from } = inputs[0];
    const { width, height } = from;
    const isAll = width === region.width && height === region.height;
    const dst = isAll ? out[0] : grab(width * height * 4);
    machine.kernels.emboss(ptr, dst, width, height, dx * frame.size, dy * frame.size, gain, +wrap);
    if (!isAll) machine.kernels.cropPlane(dst, width, region.x - from.x, region.y - from.y, out[0], region.width, region.height);
  },
});
