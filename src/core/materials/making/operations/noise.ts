import type { Region } from '../../../image/tile';
import { turnedLattice } from '../../lattice';
import { grown, onGrid, wholeOf, type Frame } from '../frame';
import { defineOperation, type Making } from '../operation';

const TURN = (36.9 * Math.PI) / 180;
/** Small planes reach this much further than the window that they are enlarged to: more than enlarging reads around itself. */
const BORDER = 8;
/** Least pixels of a small plane to a cell of the lattice: enlarging then differs from drawing by at most two hundredths of the deviation. */
const SAMPLES = 5;
/** Most halvings of a plane that low octaves are drawn on. */
const MOST = 4;

export interface NoiseParams {
  /** Cycles per long side of the first octave, and by how much each next one has more. */
  f: number;
  lacunarity: number;
  gain: number;
  /** Cycles across and down per cycle of `f`. */
  stretch?: [number, number];
  /** Of each octave. */
  seeds: number[];
  /** What the sum is scaled by and what is added. */
  scale: number;
  shift: number;
  /** One octave only, as it is, whatever the size. */
  plain?: boolean;
}

/**
 * Octaves of gradient noise, turned against each other; those above half a cycle per pixel are left out, and those just below are faded. Low octaves are made on
 * a small plane and enlarged.
 */
export const noise = defineOperation<NoiseParams>({
  name: 'noise',
  run: (making, params) => {
    const { machine, frame, region, out } = making;
    const count = region.width * region.height;
    const top = params.stretch ? Math.max(...params.stretch) : 1;
    const small = (f: number) => {
      let n = 0;
      while (n < MOST && frame.size >> (n + 1) >= SAMPLES * f * top && frame.size >> (n + 1) >= 64) n++;
      return params.plain ? 0 : n;
    };
    let level = small(params.f);
    const plane = (n: number) => {
      const part = levelOf(making, n);
      const ptr = n === 0 ? out[0] : making.grab(part.width * part.height * 4);
      machine.kernels.fill(ptr, n === 0 ? count : part.width * part.height, 0);
      return { ptr, part };
    };
    let current = plane(level);
    const finer = () => {
      level--;
      current = { part: levelOf(making, level), ptr: doubled(making, current, level) };
    };
    let amplitude = 1;
    params.seeds.forEach((seed, o) => {
      const f = params.f * params.lacunarity ** o;
      const fade = params.plain ? 1 : fadeAt(f * top, frame.size);
      if (fade > 0) {
        while (small(f) < level) finer();
        octave(making, current, level, { f, angle: 0.37 + o * TURN, gain: amplitude * fade, seed, stretch: params.stretch });
      }
      amplitude *= params.gain;
    });
    while (level > 0) finer();
    machine.kernels.mixIn(out[0], out[0], count, params.scale, 0, params.shift);
  },
});

/** How much is left of waves of `f` cycles per long side when it has so many pixels. */
export const fadeAt = (f: number, size: number): number => Math.min(1, Math.max(0, 2 - f / (0.25 * size)));

/** The part of a sheet halved n times that lies under a region, with a border. */
function levelOf({ frame, region }: Pick<Making, 'frame' | 'region'>, n: number): Region {
  if (n === 0) return region;
  const small: Frame = { ...frame, width: frame.width >> n, height: frame.height >> n };
  if (region.width === frame.width && region.height === frame.height) return wholeOf(small);
  const step = 1 << n;
  const part = { x: region.x / step, y: region.y / step, width: region.width / step, height: region.height / step };
  return onGrid(grown(part, BORDER), small, 4, 1);
}

/** A plane twice as fine, cut to the part that is wanted of it. */
function doubled(making: Making, { ptr, part }: { ptr: number; part: Region }, level: number): number {
  const { machine, wrap, out } = making;
  const wanted = levelOf(making, level);
  const [w, h] = [2 * part.width, 2 * part.height];
  const fits = w === wanted.width && h === wanted.height;
  const target = () => (level === 0 ? out[0] : making.grab(wanted.width * wanted.height * 4));
  const whole = fits ? target() : making.grab(w * h * 4);
  machine.kernels.enlarge(ptr, part.width, part.height, whole, w, h, +wrap, making.grab(w * 16 + 64));
  if (fits) return whole;
  const to = target();
  machine.kernels.cropPlane(whole, w, wanted.x - 2 * part.x, wanted.y - 2 * part.y, to, wanted.width, wanted.height);
  return to;
}

interface Octave {
  f: number;
  angle: number;
  gain: number;
  seed: number;
  stretch?: [number, number];
}

export function octave(
  { machine, frame }: Pick<Making, 'machine' | 'frame'>,
  { ptr, part }: { ptr: number; part: Region },
  level: number,
  o: Octave,
): void {
  const { f, angle, seed, gain, stretch } = o;
  const plane = { dst: ptr, w: part.width, h: part.height, x0: part.x, y0: part.y, step: (1 << level) / frame.size, seed, gain };
  const straight = { n: 0, t: 0, px: 0, py: 0 };
  if (stretch) {
    const fx = frame.wrap ? Math.max(1, Math.round(f * stretch[0])) : f * stretch[0];
    const fy = frame.wrap ? Math.max(1, Math.round(f * stretch[1])) : f * stretch[1];
    const period = frame.wrap ? { px: fx, py: fy } : {};
    // Stretched noise is never turned, or it would cross-hatch.
    machine.kernels.addNoise({ ...plane, ...straight, ax: fx, ay: 0, bx: 0, by: fy, ...period });
  } else if (frame.wrap) {
    const { a, b, n, t } = turnedLattice(f, angle);
    machine.kernels.addNoise({ ...plane, ax: a, ay: -b, bx: b, by: a, n, t, px: 0, py: 0 });
  } else {
    const [c, s] = [f * Math.cos(angle), f * Math.sin(angle)];
    machine.kernels.addNoise({ ...plane, ...straight, ax: c, ay: -s, bx: s, by: c });
  }
}
