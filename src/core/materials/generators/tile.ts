import * as z from 'zod';
import { colour, share, slider } from '../../schema';
import { parseHex, srgbToLab } from '../../color/srgb';
import { layBricks } from '../bricks';
import { colourStrength, greyGrain, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'masonry.tile',
  label: 'Glazed tile',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.645,
  suggest: { blend: 'soft-light', strength: 0.8 },
  first: [raised(0.4, 2), colourStrength, greyGrain, parameter('rows')],
  help: 'Hand-made wall tiles: pooled glaze, worn corners, fine crazing, dirty joints.',
  params: z.object({
    rows: slider('Rows', 3, 14, 6, { step: 1 }),
    wear: share('Wear', 1, { max: 2, help: 'Chipped edges and crazing.' }),
    glaze: colour('Glaze', '#a3aca6'),
  }),
  paint(sheet, { rows, wear, glaze }) {
    const { random } = sheet;
    const side = sheet.bottom / rows;
    const n = rows * rows;
    const u = sheet.coordinates();
    const [slowX, slowY] = [sheet.noise(4), sheet.noise(4)];
    // The sheet ends inside a tile: a joint along its edge would be seen as a seam.
    u.x.add(slowX, 0.0006, 0.37 * side);
    u.y.add(slowY, 0.0006, 0.37 * side);
    const { inside, px, py, each } = layBricks(sheet, u, {
      rows,
      perRow: rows,
      height: side,
      length: side,
      joint: 0.0065,
      bond: 0,
      count: n,
      stray: [0.0011, 0.0011, 0.005],
      joints: [0.7, 1.35],
      corners: [0.002, 0.005],
    });
    const chip = each(() => random.next() ** 4 * 0.012 + 0.0004);
    const ragged = sheet.noise(24, { octaves: 5, gain: 0.72 }).scale(0.7, -0.5).power(1.5).times(chip, wear);
    inside.add(ragged, -1).add(sheet.noise(40, { octaves: 3 }), 0.0003);
    const face = inside.copy().step(-0.0003, 0.0011);
    // Glaze pools inwards of the rim, where it was thin.
    const rim = inside
      .copy()
      .clamp(0, 1)
      .exp(-1 / 0.0045);
    const pool = inside
      .copy()
      .clamp(0, 1)
      .exp(-1 / 0.016)
      .add(rim, -1);
    const wavy = sheet.noise(9, { octaves: 4, gain: 0.55 });
    const tilt = px.times(each(() => 0.012 * random.gauss())).add(py.times(each(() => 0.012 * random.gauss())));
    const body = inside
      .copy()
      .clamp(0, 1)
      .exp(-1 / 0.0028)
      .scale(-0.0042, 0.0042)
      .add(tilt)
      .add(wavy, 0.00022);
    const sand = sheet.band(0.0008, 0.002);
    const mortar = sand
      .copy()
      .scale(0.0003, 0.0008)
      .add(sheet.noise(7, { octaves: 4 }), 0.0003);
    const height = mortar.towards(body, face);
    // Crazing: where two folded noises are near nought.
    const craze = (f: number) =>
      sheet
        .noise(f, { octaves: 2, gain: 0.4 })
        .abs()
        .scale(-1 / 0.035, 1)
        .clamp();
    const cracks = craze(17)
      .max(craze(26))
      .times(sheet.noise(3, { octaves: 4 }).step(0.1, 1.3))
      .times(face)
      .scale(wear)
      .clamp();
    // Pinholes where the glaze drew back from dust, and the fine orange peel of its surface.
    const pinholes = sheet
      .spots(
        sheet.scatter(Math.round(2600 * wear), sheet.noise(3, { octaves: 3 }), 0.9, -0.9).map(({ x, y, random }) => ({
          x,
          y,
          r: random.power(0.0003, 0.0016, 2.6),
          lobes: 0.5,
          value: random.between(0.3, 1),
        })),
        0.35,
      )
      .times(face);
    const peel = sheet.band(0.0012, 0.0034);
    height.add(pinholes, -0.0006).add(peel.copy().times(face), 0.00005).add(cracks, -0.0002);
    const scuffs = sheet.strokes(
      Array.from({ length: Math.round(420 * wear) }, () => {
        const [x, y, angle, long] = [random.next(), random.next(), random.between(0, Math.PI), random.power(0.004, 0.05, 2.2)];
        return [0, 0.5, 1].map((t): StrokePoint => [
          x + Math.cos(angle) * t * long,
          y + Math.sin(angle) * t * long,
          0.0002,
          random.between(0.1, 0.6),
        ]);
      }),
      { broken: true },
    );
    const [L, A, B] = srgbToLab(parseHex(glaze));
    const shade = each(() => random.gauss());
    const soot = sheet.noise(2.2, { octaves: 6, gain: 0.68 }).step(-0.1, 2.4);
    const tile = sheet
      .plane(L)
      .add(shade, 2.2)
      .add(wavy, 1)
      .add(pool, -5)
      .add(rim, 5)
      .add(cracks, -13)
      .add(pinholes, -22)
      .add(peel, 0.5)
      .add(scuffs.times(face), 5)
      .add(soot, -4);
    const joint = sheet
      .plane(56)
      .add(sand, 4)
      .add(sheet.noise(6, { octaves: 5, gain: 0.7 }), 5);
    return {
      lightness: joint.towards(tile, face),
      a: sheet.plane(1.5).towards(
        sheet
          .plane(A)
          .add(shade, 0.5)
          .add(pool, A * 0.4),
        face,
      ),
      b: sheet.plane(8).towards(sheet.plane(B).add(shade, 0.8).add(cracks, 5).add(soot, 3), face),
      height,
      elevation: 0.62,
      contrast: 0.62,
      occlusion: { k1: 0.1, k2: 0.06, amount: 0.7 },
      shadow: { low: 0.6, reach: 0.008 },
      gain: 1.05,
    };
  },
});
