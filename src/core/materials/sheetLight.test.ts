import { PAGE } from '../image/machine';
import { chain, invert, moved, squareTo, turned, type Projection } from '../image/projection';
import { testMachine } from '@/testing/machine';
import { generate, materialScratch } from './generate';
import { drawnLight, lightingKey, lightingOf, type Lighting, type MaterialLight } from './sheetLight';
import { materialById, materials } from '.';

const DEGREE = Math.PI / 180;
const own: MaterialLight = { from: 'own', direction: 315, elevation: 40 };
const side = (direction: number): MaterialLight => ({ from: 'side', direction, elevation: 30 });
/** From the piece to a sheet that lies turned on it. */
const laid = (degrees: number): Projection => invert(turned(degrees));
const mirror: Projection = [-1, 0, 0, 0, 1, 0, 0, 0, 1];

/** The way to the light in a sheet: right and down. */
function wayIn(lay: Projection, light: MaterialLight): [number, number] {
  const lighting = lightingOf(light, lay, [0, 0]);
  const { azimuth } = drawnLight({ azimuth: 0, elevation: 0.6 }, lighting as Exclude<Lighting, 'none'>);
  return [Math.cos(azimuth), Math.sin(azimuth)];
}

describe('the light on a sheet', () => {
  it.each([
    ['as it lies', [1, 0, 0, 0, 1, 0, 0, 0, 1], [0, -1]],
    ['turned a quarter clockwise', laid(90), [-1, 0]],
    ['turned half', laid(180), [0, 1]],
    ['mirrored across', mirror, [0, -1]],
    ['mirrored and turned a quarter', chain(mirror, laid(90)), [1, 0]],
    ['larger and moved', chain([3, 0, 0, 0, 3, 0, 0, 0, 1], moved(5, 9), laid(90)), [-1, 0]],
  ] as [string, Projection, [number, number]][])('comes from the top of the piece when the sheet is %s', (_, lay, [x, y]) => {
    const way = wayIn(lay, side(0));
    expect(way[0]).toBeCloseTo(x, 9);
    expect(way[1]).toBeCloseTo(y, 9);
  });

  it('follows a perspective at its middle', () => {
    // The top of this sheet lies on the left of the piece.
    const lay = invert(
      squareTo(
        [
          [0, 10],
          [1, -1],
          [12, 0],
          [11, 8],
        ].map(([x, y]) => [x, y]) as never,
      ),
    );
    const lighting = lightingOf(side(0), lay, [6, 4]);
    expect(lighting).toMatchObject({ mirrored: false });
    expect((lighting as { turn: number }).turn).toBeGreaterThan(30);
  });

  it('is left as made where nothing is turned, so that nothing is drawn twice', () => {
    expect(lightingOf(own, laid(0), [0, 0])).toBeUndefined();
    expect(lightingOf(own, laid(1.5), [0, 0])).toBeUndefined();
    expect(lightingOf(own, laid(-30), [0, 0])).toEqual({ turn: 30, mirrored: false });
    expect(lightingOf({ ...own, from: 'none' }, laid(40), [0, 0])).toBe('none');
  });

  it('is named by its lamp and its turn', () => {
    const names = [undefined, 'none', { turn: 30, mirrored: false }, { turn: 30, mirrored: true }, lightingOf(side(10), laid(0), [0, 0])] as const;
    expect(new Set(names.map((one) => JSON.stringify(lightingKey(one)))).size).toBe(names.length);
    expect(lightingKey(lightingOf(side(10), laid(20), [0, 0])).lamp).toBe(lightingKey(lightingOf(side(10), laid(70), [0, 0])).lamp);
  });
});

const machine = testMachine(16);
const START = PAGE;
const N = 256;
machine.memory.grow(Math.ceil((materialScratch(N, N) + 2 ** 22) / 65536));

function make(id: string, lighting?: Lighting): Uint8Array {
  generate(machine, { material: materialById(id), params: {}, seed: 7, width: N, height: N, lighting }, START, START + N * N * 4);
  return machine.bytes.slice(START, START + N * N * 4);
}

/** Height of a material, in 16 bits. */
function heightOf(id: string): Uint16Array {
  generate(machine, { material: materialById(id), params: {}, seed: 7, width: N, height: N, part: 'height' }, START, START + N * N * 8);
  return new Uint16Array(machine.bytes.slice(START, START + N * N * 8).buffer);
}

/** Degrees from the right downwards from which slopes are brightest, by least squares of the light over the slopes. */
function litFrom(look: Uint8Array, unlit: Uint8Array, height: Uint16Array): { azimuth: number } {
  const brighter = (i: number) => look[4 * i + 1] - unlit[4 * i + 1];
  let [xx, xy, yy, xv, yv, mean] = [0, 0, 0, 0, 0, 0];
  for (let i = 0; i < N * N; i++) mean += brighter(i) / (N * N);
  for (let y = 1; y < N - 1; y++)
    for (let x = 1; x < N - 1; x++) {
      const i = y * N + x;
      const [gx, gy] = [height[4 * (i + 1)] - height[4 * (i - 1)], height[4 * (i + N)] - height[4 * (i - N)]];
      const v = brighter(i) - mean;
      [xx, xy, yy, xv, yv] = [xx + gx * gx, xy + gx * gy, yy + gy * gy, xv + gx * v, yv + gy * v];
    }
  const det = xx * yy - xy * xy;
  const [a, b] = [(xv * yy - yv * xy) / det, (yv * xx - xv * xy) / det];
  // Ground that falls towards the light is bright.
  return { azimuth: Math.atan2(-b, -a) / DEGREE };
}

const apart = (a: number, b: number) => Math.abs(((((a - b) % 360) + 540) % 360) - 180);

describe.each(['paper.hot-press', 'masonry.plaster', 'skin.leather', 'skin.made'])('%s', (id) => {
  const height = heightOf(id);
  const unlit = make(id, 'none');
  const litAs = (lighting?: Lighting) => litFrom(make(id, lighting), unlit, height);
  const made = litAs();

  it.each([90, 215])('is lit from the other side when the sheet is turned by %d°', (turn) => {
    expect(apart(litAs({ turn, mirrored: false }).azimuth, made.azimuth + turn)).toBeLessThan(8);
  });

  it('is lit from where the light is said to be', () => {
    for (const direction of [0, 100, 250]) {
      const { azimuth } = litAs({ lamp: { direction, elevation: 40 }, turn: 0, mirrored: false });
      expect(apart(azimuth, direction - 90)).toBeLessThan(8);
    }
  });
});

it.each(materials.map(({ id, unlit }) => [id, unlit === true] as const))('%s says whether light falls on it', (id, unlit) => {
  expect(Buffer.compare(Buffer.from(make(id)), Buffer.from(make(id, 'none'))) === 0).toBe(unlit);
});
