import { defineOperation } from '../operation';

const modulo = (i: number, n: number) => ((i % n) + n) % n;

/** Planes of x and y, in fractions of the long side, at pixel centres. They start again where a sheet that continues does. */
export const coordinates = defineOperation<null>({
  name: 'coordinates',
  planes: 2,
  run: ({ machine, frame, region, out: [x, y] }) => {
    const { width, height } = region;
    const values = machine.floats;
    const place = (at: number, length: number) => ((frame.wrap ? modulo(at, length) : at) + 0.5) / frame.size;
    const row = Float32Array.from({ length: width }, (_, i) => place(region.x + i, frame.width));
    for (let j = 0; j < height; j++) {
      values.set(row, x / 4 + j * width);
      machine.kernels.fill(y + j * width * 4, width, place(region.y + j, frame.height));
    }
  },
});
