import * as z from 'zod';
import { colour, share, slider } from '../../schema';
import { parseHex, srgbToLab } from '../../color/srgb';
import { islandsOf, slowField, spreadCells } from '../cells';
import { crackStrokes, growCracks } from '../cracks';
import { onlyGrooves, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'masonry.flaking',
  label: 'Flaking paint',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.545,
  suggest: { blend: 'hard-light', strength: 0.55 },
  start: { steps: [tone(-0.05, 0, -0.4)], guardAmounts: { skin: 0.6 } },
  first: [parameter('loss'), parameter('paint'), raised(0.4, 2), onlyGrooves(0.16, 0.5, '#4a2f1d')],
  help: 'Old paint that has cracked, curled and come off the boards beneath in whole flakes.',
  params: z.object({
    loss: slider('How much is gone', -0.6, 0.8, 0, { step: 0.05 }),
    curl: share('Curl', 1, { max: 2, help: 'How far the rims stand up.' }),
    cracks: share('Cracks', 1, { max: 1.5 }),
    paint: colour('Paint', '#8f9a93'),
  }),
  paint(sheet, { loss: gone, curl, cracks, paint: tint }) {
    const { seed } = sheet;
    const bend = slowField(seed + 5);
    const net = growCracks({
      seed,
      primary: 60,
      spacing: 0.12,
      generations: 3,
      ratio: 0.6,
      tries: 1500,
      jag: 0.045,
      back: 0.015,
      breaking: 0.25,
      direction: (x, y) => 0.4 + 0.7 * bend(x, y),
      density: (x, y) => 0.9 + 0.25 * bend(y, x),
    });
    const big = slowField(seed + 11, 7);
    const islands = islandsOf(net);
    const lost = islands(seed, (x, y, random) => 0.95 * big(x, y) - 0.62 + gone + 0.55 * random.gauss());
    const curled = islands(seed + 1, (_x, _y, random) => random.next() ** 2);
    const strokes = crackStrokes(net, [0.8, 0.62, 0.5, 0.42], [0.95, 0.85, 0.7, 0.6], seed, () => 1);
    const crack = sheet.strokes(strokes, { broken: true });
    const found = sheet.strokes(
      strokes.map((s) => s.map(([x, y, , v]) => [x, y, 0.0006, v > 0.02 ? 1 : 0])),
      { least: 0.6 },
    );
    const d = found.distance(0.4, 0.06);
    // Paint is eaten from the cracks inwards by as much as its island has lost.
    const rough = sheet.noise(55, { octaves: 3 });
    const eat = spreadCells(sheet, lost)
      .scale(0.05, -0.022)
      .add(sheet.noise(9, { octaves: 5, gain: 0.66 }), 0.0045)
      .add(rough, 0.0012);
    const edge = d.copy().add(eat, -1);
    const chips = sheet.spots(
      sheet.scatter(1400, eat, 30, -1).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0007, 0.006, 2.6),
        lobes: 1.6,
        long: random.between(1, 1.7),
        angle: random.between(0, 3.14),
        value: 1,
      })),
      0.2,
    );
    edge.add(chips, -0.03);
    const cover = edge.copy().scale(500, 0.5).clamp().blur(0.0009).step(0.25, 0.75);
    const rim = edge
      .copy()
      .clamp(0, 1)
      .exp(-1 / 0.006);
    const wavy = sheet.noise(30, { octaves: 3 });
    const flake = spreadCells(sheet, curled)
      .scale(1.5 * curl)
      .times(rim)
      .add(1)
      .scale(0.0026)
      .add(wavy, 0.00012)
      .add(crack, -0.0012 * cracks);
    const grainy = sheet.noise(26, { octaves: 4, gain: 0.75, stretch: [4, 0.35] });
    const streak = sheet.noise(7, { octaves: 5, gain: 0.7, stretch: [5, 0.3] });
    const wood = grainy.copy().scale(0.0007).add(streak, 0.0004);
    const height = wood.towards(flake, cover);
    const dirt = sheet.noise(2.6, { octaves: 6, gain: 0.66 }).scale(0.45, 0.35).clamp(0, 2).power(2);
    const [L, A, B] = srgbToLab(parseHex(tint));
    const lines = crack.scale(cracks).clamp();
    const painted = sheet.noise(3, { octaves: 4 }).scale(0.9, L).add(dirt, -7).add(rim, 2.5).add(lines, -20).add(rough, 0.6);
    const paintedA = sheet.plane(A).add(dirt, 1.2).add(lines, 2);
    const paintedB = sheet.plane(B).add(dirt, 5).add(lines, 3);
    const bare = streak.scale(4.5, 36).add(grainy, 3.2);
    const bareA = sheet.noise(5, { octaves: 3, stretch: [3, 0.4] }).scale(2, 6);
    const bareB = sheet.noise(6, { octaves: 3, stretch: [3, 0.4] }).scale(3, 13);
    return {
      lightness: bare.towards(painted, cover),
      a: bareA.towards(paintedA, cover),
      b: bareB.towards(paintedB, cover),
      height,
      elevation: 0.62,
      contrast: 0.62,
      occlusion: { k1: 0.16, k2: 0.09, amount: 0.75 },
      shadow: { low: 0.45, reach: 0.012 },
      gain: 1.1,
    };
  },
});
