import { converter } from 'culori';
import { testMachine } from '@/testing/machine';
import { PAGE } from '../image/machine';
import { generate, materialScratch } from './generate';
import { materialById, materials } from '.';

const SIDE = 128;
const machine = testMachine(16);
machine.memory.grow(Math.ceil((materialScratch(SIDE, SIDE) + 2 ** 22) / 65536));
const lab = converter('lab65');

/** Mean and 95th percentile of CIELAB chroma, by the culori package. */
function chromaOf(id: string): { mean: number; high: number } {
  generate(machine, { material: materialById(id), params: {}, seed: 7, width: SIDE, height: SIDE }, PAGE, PAGE + SIDE * SIDE * 4);
  const bytes = machine.bytes.slice(PAGE, PAGE + SIDE * SIDE * 4);
  const chroma = Array.from({ length: Math.floor((SIDE * SIDE) / 7) }, (_, i) => {
    const [r, g, b] = bytes.subarray(i * 28, i * 28 + 3);
    const { a, b: yellow } = lab({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
    return Math.hypot(a, yellow);
  }).sort((x, y) => x - y);
  return { mean: chroma.reduce((sum, c) => sum + c, 0) / chroma.length, high: chroma[Math.floor(chroma.length * 0.95)] };
}

/**
 * What the eye calls neutral has a chroma under 2 or so; undyed paper, linen, plaster and dry paint lie at 2 to 10; kraft, rust, brick and leaves lie well above
 * (common practice, no source).
 */
const neutral =
  'metal.brushed wear.film wear.streaks wear.rings wear.splatter wear.fingerprints air.haze air.rain edges.frame edges.worn edges.deckle brush.wash skin.made ' +
  'print.photocopy wear.wet-plate wear.chalk wear.mist edges.film edges.instant wear.tape';
const pale =
  'paper.cold-press paper.hot-press paper.laid paper.rag paper.crumpled paper.handled cloth.canvas cloth.linen cloth.twill cloth.silk cloth.mesh ' +
  'masonry.plaster masonry.concrete masonry.limewash masonry.stone masonry.tile wood.weathered wood.driftwood cracks.glaze wear.water-marks ' +
  'skin.grain skin.freckled brush.oil brush.knife brush.dry brush.dots living.fur ' +
  'print.halftone brush.charcoal brush.hatching paper.newsprint paper.tar skin.hide skin.scales paper.postcard edges.lifted';
const coloured =
  'paper.kraft paper.aged paper.foxed paper.burnt paper.written cloth.hessian masonry.flaking masonry.brick metal.rust metal.patina cracks.craquelure ' +
  'cracks.mud air.stray air.clouds air.lights brush.marbled living.leaves ' +
  'metal.gold-leaf metal.corrugated masonry.sand wood.bark skin.leather air.ice paper.vellum living.lichen paper.wallpaper paper.envelope air.leak brush.wax';
const list = (ids: string) => ids.split(' ');

it('every material is in one of the three groups', () => {
  expect([...list(neutral), ...list(pale), ...list(coloured)].sort()).toEqual(materials.map(({ id }) => id).sort());
});

it.each(list(neutral))('%s is neutral', (id) => {
  expect(chromaOf(id).mean).toBeLessThan(2);
});

it.each(list(pale))('%s has a little colour, and nowhere much', (id) => {
  const { mean, high } = chromaOf(id);
  expect(mean).toBeGreaterThan(2);
  expect(mean).toBeLessThan(10);
  expect(high).toBeLessThan(17);
});

it.each(list(coloured))('%s is coloured', (id) => {
  expect(chromaOf(id).high).toBeGreaterThan(12);
});
