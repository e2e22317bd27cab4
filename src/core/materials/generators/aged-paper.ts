import * as z from 'zod';
import { share, slider } from '../../schema';
import type { Field } from '../field';
import { colourFirst, grain, onlyStains, paleColour, raised, tone } from '../first';
import { depthInDiscs } from '../making/operations/structures';
import { defineMaterial } from '../material';
import { clamp, line } from '../random';
import type { Sheet, Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.aged',
  label: 'Aged, stained paper',
  family: 'paper',
  seamless: false,
  shape: 'piece',
  luma: 0.65,
  suggest: { blend: 'multiply', strength: 0.6 },
  start: { steps: [tone(0.2, 0, 0)] },
  first: [onlyStains(0.3, [0.66, 0.62, 0.56], '#5a3a1e', 0.8), paleColour(0.3), colourFirst, grain, raised(0.4, 1)],
  help: 'Browned stock with water stains, foxing, folds and a dark burnt border.',
  params: z.object({
    border: share('Dark border', 1, { max: 2, help: 'How far the burnt edge reaches in.' }),
    stains: slider('Stains', 0, 16, 7, { step: 1, help: 'Water stains with a dried rim.' }),
    foxing: share('Foxing', 1, { max: 2, help: 'Clustered brown spots.' }),
    folds: share('Folds', 1, { max: 1, help: 'The sheet was once folded in four.' }),
  }),
  paint(sheet, { border, stains, foxing, folds }) {
    const wide = sheet.noise(1.3, { octaves: 6, gain: 0.62 });
    const fine = sheet.noise(60);
    const burn = burntEdge(sheet, wide, fine, border);
    const { body, rim } = waterStains(sheet, wide, fine, Math.round(stains));
    const { fox, fleck } = spotting(sheet, foxing);
    const crease = creases(sheet);
    const { worn, pale, dark } = foldLines(sheet, folds);

    const height = sheet.band(0.0018, 0.005).scale(0.00016);
    height.add(sheet.white(0.0008), 0.00022).add(sheet.fibres(2600), 0.0005).add(wide, 0.003);
    height
      .add(crease, -0.0012)
      .add(pale, 0.0011 * folds)
      .add(dark, -0.0011 * folds);

    // Ageing is mostly little and in places much: a skewed field.
    const blotch = sheet
      .noise(2.6, { octaves: 5, gain: 0.72 })
      .scale(0.28, 0.5)
      .add(sheet.noise(9, { octaves: 4, gain: 0.7 }), 0.12)
      .power(2.2);
    const hue = sheet.noise(1.7, { octaves: 4 });
    const lightness = sheet.plane(82).add(blotch, -11).add(body, -13).add(rim, -17).add(burn, -36).add(fox, -18).add(fleck, -20);
    lightness
      .add(crease, -9)
      .add(fine, 0.9)
      .add(pale, 5 * folds)
      .add(worn, -9 * folds);
    // Below L 20 burnt paper keeps its last difference in tone.
    const low = lightness.copy().clamp(-100, 20).scale(-0.75, 15);
    lightness.add(low);
    const a = sheet.plane(3.2).add(hue, 0.8).add(blotch, 3).add(body, 3).add(rim, 3.5).add(burn, 7).add(fox, 8);
    const scorched = burn.copy().times(burn, -0.4, 1);
    const b = sheet.plane(18).add(hue, 2.2).add(blotch, 6).add(body, 6).add(rim, 5).add(scorched, 9).add(fox, 8);
    return { lightness, a, b, height, elevation: 0.7, contrast: 0.24, occlusion: { k1: 0.05, k2: 0.04, amount: 0.4 } };
  },
});

/** Distance to the border with noise in the distance itself, so that no line runs parallel to the frame. */
function burntEdge(sheet: Sheet, wide: Field, fine: Field, border: number): Field {
  const { x, y } = sheet.coordinates();
  const right = sheet.right;
  const bottom = sheet.bottom;
  const sum = sheet.plane();
  for (const [field, far] of [
    [x, right],
    [y, bottom],
  ] as const) {
    sum.add(field.copy().scale(-14).exp());
    sum.add(
      field
        .copy()
        .scale(14, -14 * far)
        .exp(),
    );
  }
  const d = sum
    .ln()
    .scale(-1 / 14, 0.02)
    .add(wide, 0.024)
    .add(fine, 0.0018);
  d.add(sheet.noise(5, { octaves: 5, gain: 0.7 }), 0.012);
  // Softplus keeps the distance positive without a kink.
  d.scale(1 / 0.006)
    .clamp(-60, 60)
    .exp()
    .add(1)
    .ln()
    .scale(0.006 / Math.max(0.05, border));
  const tight = d
    .copy()
    .scale(-1 / 0.022)
    .exp();
  return d
    .scale(-1 / 0.1)
    .exp()
    .scale(0.6)
    .add(tight, 0.8)
    .scale(Math.min(1, border * 2));
}

function waterStains(sheet: Sheet, wide: Field, fine: Field, count: number): { body: Field; rim: Field } {
  const { random } = sheet;
  const body = sheet.plane();
  const rim = sheet.plane();
  const broken = sheet.noise(5, { octaves: 4 }).scale(0.5, 0.55).clamp(0, 1.4);
  const { x, y } = sheet.coordinates();
  const outline = sheet.noise(5, { octaves: 4 }).scale(0.0035).add(wide, 0.01).add(fine, 0.0006);
  const bottom = sheet.bottom;
  const right = sheet.right;
  for (let s = 0; s < count; s++) {
    const R = random.power(0.05, 0.3, 1.6);
    const cx = random.between(0, right);
    const cy = random.between(0, bottom);
    const strength = random.between(0.45, 1);
    const wobble = sheet.single(1.5 / R);
    // Union of one to three discs; z is the depth inside the outline.
    const discs = Array.from({ length: 1 + random.integer(3) }, (_, k) => ({
      r: k === 0 ? R : R * random.between(0.4, 0.8),
      x: k === 0 ? cx : cx + R * random.between(-0.8, 0.8),
      y: k === 0 ? cy : cy + R * random.between(-0.8, 0.8),
    }));
    const z = sheet
      .step(depthInDiscs, { discs }, x, y)
      .add(outline)
      .add(wobble, 0.1 * R);
    front(z, R, strength, broken, body, rim, true);
    if (random.chance(0.6)) front(z.add(-0.14 * R), R, strength * 0.55, broken, body, rim, false);
  }
  return { body: body.clamp(0, 1.6), rim: rim.clamp(0, 1.6) };
}

/** One drying front: a thin dark rim outside, a pale body inside. */
function front(z: Field, R: number, strength: number, broken: Field, body: Field, rim: Field, fills: boolean): void {
  const inside = z.copy().step(-0.0006, 0.0012);
  if (fills) {
    const fade = z
      .copy()
      .clamp(0, 9)
      .scale(-1 / (0.5 * R))
      .exp()
      .scale(0.18, 0.1)
      .times(inside);
    body.add(fade, strength);
  }
  const edge = z
    .copy()
    .clamp(0, 9)
    .exp(-1 / 0.0075)
    .times(inside)
    .times(broken);
  rim.add(edge, 0.75 * strength);
}

function spotting(sheet: Sheet, amount: number): { fox: Field; fleck: Field } {
  const { random } = sheet;
  const right = sheet.right;
  const bottom = sheet.bottom;
  const spots: Spot[] = [];
  for (let c = 0; c < Math.round(9 * amount); c++) {
    const cx = random.between(0, right);
    const cy = random.between(0, bottom);
    const spread = random.between(0.03, 0.11);
    for (let k = 0, n = 8 + random.integer(26); k < n; k++) {
      spots.push({
        x: cx + spread * random.gauss(),
        y: cy + spread * random.gauss(),
        r: random.power(0.0007, 0.007, 2.2),
        lobes: 1,
        value: random.between(0.3, 1),
      });
    }
  }
  const flecks: Spot[] = Array.from({ length: 1500 }, () => ({
    x: random.between(0, right),
    y: random.between(0, bottom),
    r: random.power(0.0003, 0.0018, 2.6),
    lobes: 1,
    value: random.between(0.3, 1),
    long: random.between(1, 2.2),
    angle: random.between(0, 3.14),
  }));
  return { fox: sheet.spots(spots, 0.5).blur(0.0035), fleck: sheet.spots(flecks, 0.4) };
}

function creases(sheet: Sheet): Field {
  const { random } = sheet;
  const right = sheet.right;
  const bottom = sheet.bottom;
  const list: StrokePoint[][] = [];
  for (let i = 0; i < 46; i++) {
    let x = random.between(0, right);
    let y = random.between(0, bottom);
    if (random.chance(0.6)) {
      const inset = random.between(0, 0.1);
      if (random.chance(0.5)) x = random.chance(0.5) ? inset : right - inset;
      else y = random.chance(0.5) ? inset : bottom - inset;
    }
    let angle = random.between(0, 2 * Math.PI);
    const length = random.logNormal(0.05, 0.6);
    const strength = random.between(0.15, 0.7);
    const stroke: StrokePoint[] = [];
    for (let s = 0; s <= 10; s++) {
      stroke.push([x, y, 0.0004, strength * Math.sin(Math.PI * clamp(s / 10, 0.03, 0.97))]);
      angle += 0.15 * random.gauss();
      x += (Math.cos(angle) * length) / 10;
      y += (Math.sin(angle) * length) / 10;
    }
    list.push(stroke);
  }
  return sheet.strokes(list).blur(0.0005);
}

/** Two folds near the middle: a worn dark core, a pale shoulder on one side and a dark one on the other. */
function foldLines(sheet: Sheet, amount: number): { worn: Field; pale: Field; dark: Field } {
  const { random } = sheet;
  const right = sheet.right;
  const bottom = sheet.bottom;
  const core: StrokePoint[][] = [];
  const up: StrokePoint[][] = [];
  const down: StrokePoint[][] = [];
  for (const across of [true, false]) {
    const at = (0.5 + random.between(-0.02, 0.02)) * (across ? bottom : right);
    const seed = sheet.seed + (across ? 31 : 57);
    const lines: [StrokePoint[], StrokePoint[], StrokePoint[]] = [[], [], []];
    const far = across ? right : bottom;
    for (let i = 0; i <= 160; i++) {
      const v = (i / 160) * far;
      const d = at + 0.0012 * line(9 * v, seed);
      const strength = clamp(0.5 + 0.5 * line(14 * v, seed + 1)) * (amount > 0 ? 1 : 0);
      const place = (o: number): [number, number] => (across ? [v, d + o] : [d + o, v]);
      lines[0].push([...place(0), 0.0009, strength]);
      lines[1].push([...place(-0.002), 0.0022, strength]);
      lines[2].push([...place(0.002), 0.0022, strength]);
    }
    core.push(lines[0]);
    up.push(lines[1]);
    down.push(lines[2]);
  }
  return { worn: sheet.strokes(core).blur(0.0009), pale: sheet.strokes(up).blur(0.003), dark: sheet.strokes(down).blur(0.003) };
}
