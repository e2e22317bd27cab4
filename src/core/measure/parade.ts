/** Levels of red, green and blue along the width of a picture: counts[channel][column·256 + level]. */
export interface Parade {
  columns: number;
  counts: [Uint32Array, Uint32Array, Uint32Array];
}

/** Counts RGBA8 pixels by column of the scope, every `step`-th row. */
export function paradeOf(rgba: Uint8Array, width: number, height: number, columns = 64, step = 1): Parade {
  const counts: Parade['counts'] = [new Uint32Array(columns * 256), new Uint32Array(columns * 256), new Uint32Array(columns * 256)];
  const column = Uint32Array.from({ length: width }, (_, x) => Math.floor((x * columns) / width) * 256);
  for (let y = 0; y < height; y += step)
    for (let x = 0; x < width; x++) {
      const p = (y * width + x) * 4;
      counts[0][column[x] + rgba[p]]++;
      counts[1][column[x] + rgba[p + 1]]++;
      counts[2][column[x] + rgba[p + 2]]++;
    }
  return { columns, counts };
}

/** For one channel, the levels below which the shares lie, column by column; null for a column without pixels. */
export function paradeLines({ columns, counts }: Parade, channel: 0 | 1 | 2, shares: readonly number[]): (number | null)[][] {
  const lines: (number | null)[][] = shares.map(() => []);
  for (let c = 0; c < columns; c++) {
    const own = counts[channel].subarray(c * 256, c * 256 + 256);
    const total = own.reduce((s, v) => s + v, 0);
    let [sum, v] = [0, -1];
    shares.forEach((share, i) => {
      while (v < 255 && (sum < total * share || sum === 0)) sum += own[++v];
      lines[i].push(total === 0 ? null : v);
    });
  }
  return lines;
}
