import * as z from 'zod';
import { choice, share, slider } from '../../schema';
import { layBricks } from '../bricks';
import { colourStrength, greyGrain, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'masonry.brick',
  label: 'Brick wall',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.385,
  suggest: { blend: 'soft-light', strength: 0.75 },
  start: { steps: [tone(0.15, 0, -0.5)] },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, parameter('rows')],
  help: 'Hand-made bricks, chipped and sooted, with recessed mortar.',
  params: z.object({
    bond: choice(
      'Bond',
      [
        { value: 'running', label: 'Running' },
        { value: 'english', label: 'English' },
      ],
      'running',
      { help: 'English bond has a row of brick ends between rows of their long sides.' },
    ),
    rows: slider('Rows', 6, 24, 12, { step: 2, help: 'Courses over the height.' }),
    chips: share('Chips', 1, { max: 2 }),
    soot: share('Soot', 1, { max: 2 }),
    salts: share('Salts', 1, { max: 2, help: 'White bloom on the face of the brick.' }),
  }),
  paint(sheet, { bond, rows, chips, soot, salts }) {
    const { random } = sheet;
    const count = 2 * Math.round(rows / 2);
    const rowHeight = sheet.bottom / count;
    const perRow = Math.max(2, Math.round(sheet.right / (rowHeight * 3)));
    const length = sheet.right / perRow;
    const joint = 0.0088 * (11 / count);
    const english = bond === 'english';
    const n = english ? (count / 2) * 3 * perRow : count * perRow;
    const u = sheet.coordinates();
    // The sheet ends inside its bricks: a joint along its edge would be seen as a seam.
    u.x.add(sheet.noise(6, { octaves: 2 }), 0.0007, 0.37 * length);
    u.y.add(sheet.noise(6, { octaves: 2 }), 0.0007, 0.43 * rowHeight);
    const { inside, px, py, each } = layBricks(sheet, u, {
      rows: count,
      perRow,
      height: rowHeight,
      length,
      joint,
      bond: 0.5,
      headers: english,
      count: n,
      stray: [0.0014, 0.001, 0.0065],
      joints: [0.75, 1.3],
      corners: [0.0012, 0.0045],
    });
    // Each brick its own roughness and its own share of chipped edges.
    const rough = each(() => random.logNormal(1, 0.35));
    const chip = each(() => random.next() ** 3 * 0.01 + 0.0008);
    const ragged = sheet
      .noise(26, { octaves: 4, gain: 0.75 })
      .scale(1 / 1.5, -0.4)
      .power(1.5)
      .times(chip, chips);
    const grit = sheet.noise(55, { octaves: 3 });
    inside
      .add(sheet.noise(13, { octaves: 4 }), 0.0009)
      .add(grit.copy().times(rough), 0.0003)
      .add(ragged, -1)
      .add(sheet.single(45), 0.0012);

    const face = inside.copy().step(-0.0004, 0.0012);
    const body = inside
      .copy()
      .clamp(0, 1)
      .scale(-1 / 0.002)
      .exp()
      .scale(-0.0052, 0.0052);
    const tiltX = each(() => 0.01 * random.gauss());
    const tiltY = each(() => 0.014 * random.gauss());
    body
      .add(px.times(tiltX))
      .add(py.times(tiltY))
      .add(grit.times(rough), 0.0003)
      .add(sheet.noise(16, { octaves: 3, gain: 0.7 }), 0.0004);
    const density = sheet.noise(4, { octaves: 3 });
    // Moulded clay: sanded skin, and creases where the clot was folded, which break off and go on.
    const skin = sheet.band(0.0004, 0.0011);
    const crease = sheet
      .noise(9, { octaves: 3, gain: 0.6, stretch: [0.6, 2.2] })
      .abs()
      .scale(-1 / 0.05, 1)
      .clamp()
      .times(density.copy().step(0.1, 0.9));
    body.add(skin.copy().times(rough), 0.00012).add(crease, -0.0007);
    const groove = inside
      .copy()
      .abs()
      .scale(-1 / 0.0016)
      .exp();
    const sand = sheet.band(0.0008, 0.002);
    const mortar = sheet.noise(5, { octaves: 4 }).scale(0.0006, 0.0014).add(sand, 0.00042).add(groove, -0.001);
    const height = mortar.towards(body, face);
    const pits = sheet.spots(
      sheet.scatter(7000, density, 0.8, -0.6).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0004, 0.0048, 2.8),
        lobes: 1.4,
        long: random.between(1, 2),
        angle: random.between(0, 3.14),
        value: random.between(0.3, 1),
      })),
      0.6,
    );
    height.add(pits, -0.0016);
    // Grains of quartz and iron in the clay.
    const grains = (count: number) =>
      sheet.spots(
        Array.from({ length: count }, () => ({
          x: random.next(),
          y: random.next(),
          r: random.power(0.00025, 0.0016, 2.8),
          lobes: 1,
          long: random.between(1, 1.6),
          angle: random.between(0, 3.14),
          value: random.between(0.3, 1),
        })),
        0.3,
      );
    const [pale, dark] = [grains(2600), grains(1400)];
    height.add(pale, 0.0003);

    const kind = Array.from({ length: n }, () => {
      const burnt = random.chance(0.1);
      const pale = !burnt && random.chance(0.07);
      const shift = burnt ? [-12, -9, -8] : pale ? [9, -5, 0] : [0, 0, 0];
      return [
        43 + 3.6 * random.gauss() + shift[0],
        22 + 2.4 * random.gauss() + shift[1],
        20 + 3.2 * random.gauss() + shift[2],
        random.chance(0.35) ? 1 : 0,
      ];
    });
    let i = 0;
    const spread = (c: number) => ((i = 0), each(() => kind[i++][c]));
    const kiss = spread(3).times(sheet.noise(4.4, { octaves: 4 }).step(0.3, 1.1));
    const mottle = sheet.noise(11, { octaves: 4, gain: 0.7 });
    const fine = sheet.noise(48, { octaves: 2, gain: 0.82 });
    const L = spread(0).add(mottle, 2.6).add(fine, 1.5).add(skin, 1.5).add(pale, 10).add(dark, -9).add(crease, -4).add(kiss, -7).add(pits, -8);
    const A = spread(1).add(mottle, 0.9).add(pale, -5).add(dark, -4).add(kiss, -5);
    const B = spread(2).add(mottle, 1.1).add(pale, -4).add(dark, -5).add(kiss, -4);
    // Salts: white, in patches, thin.
    const bloom = sheet
      .noise(3.2, { octaves: 4, gain: 0.66 })
      .step(0.5, 2.2)
      .times(mottle.copy().scale(0.4, 0.6).clamp(), 0.5 * salts)
      .clamp();
    L.towards(sheet.plane(72), bloom);
    A.towards(sheet.plane(5), bloom);
    B.towards(sheet.plane(7), bloom);
    const dirt = sheet
      .noise(2.1, { octaves: 4, gain: 0.68 })
      .step(-0.2, 2.4)
      .scale(-0.17 * 1.6 * soot, 1);
    const joints = sheet
      .plane(62)
      .add(sand, 3)
      .add(sheet.noise(7, { octaves: 3 }), 3)
      .add(pits, -6);
    const jointA = sheet.plane(1.8);
    const jointB = sheet.noise(6, { octaves: 3 }).scale(1, 9);
    return {
      lightness: joints.towards(L, face).times(dirt),
      a: jointA.towards(A, face).times(dirt),
      b: jointB.towards(B, face).times(dirt),
      height,
      elevation: 0.66,
      contrast: 0.72,
      occlusion: { k1: 0.11, k2: 0.06, s2: 0.011, amount: 0.8 },
      gain: 1.14,
      shadow: { low: 0.5, reach: 0.011 },
    };
  },
});
