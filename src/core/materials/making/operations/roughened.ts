import { defineOperation } from '../operation';
import { fadeAt, octave } from './noise';

/** Cycles per long side of the first octave: too fine for sheets of up to 2048 pixels, so that those stay as they are. */
const FIRST = 1100;
const LACUNARITY = 1.93;
/** What an octave has of the one before. */
const GAIN = 0.8;
const OCTAVES = 5;
/** Standard deviation of one octave. */
const DEVIATION = 0.208;
const LARGEST_WITHOUT = 2048;

interface RoughenedParams {
  amount: number;
  seed: number;
  /** Cycles across and down per cycle. */
  stretch?: [number, number];
}

/** Goes on where the octaves of a smaller sheet end: finer ones, as strong as the second input says. They vanish when the sheet is reduced. */
export const roughened = defineOperation<RoughenedParams>({
  name: 'roughened',
  inPlace: true,
  isIdle: (_, { size }) => size <= LARGEST_WITHOUT,
  run: (making, { amount, seed, stretch }) => {
    const { machine, frame, region, inputs, out, grab } = making;
    const count = region.width * region.height;
    const fine = grab(count * 4);
    machine.kernels.fill(fine, count, 0);
    const top = stretch ? Math.max(...stretch) : 1;
    for (let o = 0; o < OCTAVES; o++) {
      const f = FIRST * LACUNARITY ** o;
      const fade = fadeAt(f * top, frame.size);
      if (fade > 0) octave(making, { ptr: fine, part: region }, 0, { f, angle: 0.7 + o, gain: GAIN ** o * fade, seed: seed + o * 31, stretch });
    }
    machine.kernels.times(fine, inputs[1].ptr, count, amount / DEVIATION, 0);
    machine.kernels.mixIn(out[0], fine, count, 1, 1, 0);
  },
});
