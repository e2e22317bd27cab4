import type { Machine } from '../image/machine';
import type { Region } from '../image/tile';
import type { Field } from './field';
import { isSame, type Frame } from './making/frame';
import type { Plane, Value } from './making/operation';
import { embossed, lit, shadowed } from './making/operations/light';
import { roughened } from './making/operations/roughened';
import type { MaterialPart, Paint } from './material';
import type { Sheet } from './sheet';
import { drawnLight, type Lighting, type SheetLight } from './sheetLight';

/** The last planes of a material, and how a region of them becomes a picture. */
export interface Finished {
  planes: Value[];
  put(place: { machine: Machine; frame: Frame }, planes: Plane[], region: Region, target: number): void;
}

/** Standard deviation of scanner noise, which belongs to a pixel of a scan of this long side: smaller ones average it, larger ones have it between their own. */
const GRAIN = 0.012;
const SCAN = 2048;
/** A height as grey: its mean mid grey, and a standard deviation this part of black to white, so that materials of all depths are alike. */
const DEVIATION = 0.16;

/** The steps from what a generator has painted to a picture: as it looks under a light, its own when left out, or its height as grey. */
export function finish(sheet: Sheet, paint: Paint, part: MaterialPart, lighting?: Lighting): Finished {
  return part === 'height' ? asHeight(sheet, paint) : asLook(sheet, paint, lighting);
}

/** The height of a material; where it has none, how light it is. */
function asHeight(sheet: Sheet, { surface, height, lightness }: Paint): Finished {
  const from = surface ?? height ?? lightness;
  const { mean, deviation } = sheet.moments(from);
  const scale = DEVIATION / Math.max(1e-9, deviation);
  return {
    planes: [from.value],
    put: ({ machine }, planes, region, target) => {
      const [at] = within(machine, planes, region);
      machine.kernels.greyDeep(at, target, region.width * region.height, scale, 0.5 - mean * scale);
    },
  };
}

function asLook(sheet: Sheet, paint: Paint, lighting?: Lighting): Finished {
  const { height, encoded = false } = paint;
  // What is painted as it looks is not lit again.
  const relief = encoded ? undefined : height;
  const light = relief && lighting !== 'none' ? shine(sheet, paint, relief, lighting) : sheet.plane(1);
  if (height && paint.emboss && lighting !== 'none') embossOn(sheet, paint, height, lighting);
  const lightness = relief ? roughen(sheet, paint, light) : paint.lightness;
  const occlusion = relief && paint.occlusion ? occlude(paint.occlusion, relief) : sheet.plane(1);
  return {
    planes: [lightness, paint.a, paint.b, light, occlusion].map(({ value }) => value),
    put: ({ machine, frame }, planes, region, target) => {
      const [L, A, B, shine, ao] = within(machine, planes, region);
      const isFiner = frame.size > SCAN;
      if (isFiner) machine.kernels.scanGrain({ dst: target, ...scanOf(frame, region), seed: sheet.seed + 99 });
      for (const { at, count, first } of runsOf(region, frame)) {
        machine.kernels.develop({
          L: L + at,
          A: A + at,
          B: B + at,
          lit: shine + at,
          ao: ao + at,
          c: paint.contrast ?? 1,
          m: paint.occlusion?.amount ?? 0,
          gain: paint.gain ?? 1,
          noise: GRAIN * Math.min(1, frame.size / SCAN),
          seed: sheet.seed + 99,
          emit: +encoded,
          scan: isFiner ? target + at : 0,
          dst: target + at,
          count,
          first,
        });
      }
    },
  };
}

/** Where a region of a sheet that is finer than a scan lies, and the size of that scan, as a smaller sheet is made. */
function scanOf(frame: Frame, { x, y, width, height }: Region) {
  const finer = frame.size / SCAN;
  const [W, H] = [frame.width, frame.height].map((side) => Math.ceil(side / finer / 16) * 16);
  return { w: width, h: height, x0: x, y0: y, pitch: frame.width, rows: frame.height, W, H, finer };
}

/** The stretches of a region whose pixels follow each other on their sheet: where each begins in a plane, in bytes, and the number of its first pixel. */
function runsOf({ x, y, width, height }: Region, frame: Frame): { at: number; count: number; first: number }[] {
  const fold = (i: number, n: number) => ((i % n) + n) % n;
  if (width === frame.width) return [{ at: 0, count: width * height, first: 0 }];
  const runs = [];
  for (let j = 0; j < height; j++)
    for (let i = 0, count; i < width; i += count) {
      const column = fold(x + i, frame.width);
      count = Math.min(width - i, frame.width - column);
      runs.push({ at: (j * width + i) * 4, count, first: fold(y + j, frame.height) * frame.width + column });
    }
  return runs;
}

/** Where a region of some planes lies. They are cut in their place when they are larger: they are not read again. */
function within({ kernels }: Machine, planes: Plane[], region: Region): number[] {
  for (const [ptr, from] of new Map(planes.map((plane) => [plane.ptr, plane.region])))
    if (!isSame(from, region)) kernels.cropPlane(ptr, from.width, region.x - from.x, region.y - from.y, ptr, region.width, region.height);
  return planes.map(({ ptr }) => ptr);
}

/** On what scale the roughness around a point is measured, and how far around it, in fractions of the long side. */
const ROUGH = 0.001;
const NEAR = 0.0025;
/** Least roughness in L*, and a mean roughness by a geometric one, as it is for what is spread as by chance. */
const LEAST = 0.03;
const PER_MEAN = 1.5;
/** L* by which the light changes a surface of middle lightness, per unit. */
const PER_LIGHT = 40;

/**
 * The lightness of a surface with detail that only large sheets have room for: rough where the surface is rough at the finest scale that smaller ones show,
 * smooth where it is smooth.
 */
function roughen(sheet: Sheet, { lightness, contrast = 1, detail = {} }: Paint, light: Field): Field {
  const seen = lightness.copy().add(light, PER_LIGHT * contrast);
  // The geometric mean, because an edge is not rough: it stands out in few places only.
  const apart = seen.copy().blur(ROUGH).add(seen, -1).abs().clamp(LEAST, 100).ln();
  // At one size for all: a larger sheet would find finer roughness.
  const roughness = apart.blur(NEAR, { isDecided: true }).exp().scale(PER_MEAN);
  return sheet.step(roughened, { amount: detail.amount ?? 1, seed: sheet.seed + 4243, stretch: detail.stretch }, lightness, roughness);
}

function lightOn({ azimuth = -2.25, elevation = 0.65 }: Paint, lighting?: SheetLight): { azimuth: number; elevation: number } {
  return lighting ? drawnLight({ azimuth, elevation }, lighting) : { azimuth, elevation };
}

/** What stands up becomes light on the side that the light comes from. */
function embossOn(sheet: Sheet, paint: Paint, height: Field, lighting?: SheetLight): void {
  const { width, gain } = paint.emboss as NonNullable<Paint['emboss']>;
  const { azimuth } = lightOn(paint, lighting);
  const sides = sheet.step(embossed, { dx: width * Math.cos(azimuth), dy: width * Math.sin(azimuth), gain }, height);
  for (const plane of [paint.lightness, paint.a, paint.b]) plane.add(sides, 1, -0.5);
}

function shine(sheet: Sheet, paint: Paint, height: Field, lighting?: SheetLight): Field {
  const { azimuth, elevation } = lightOn(paint, lighting);
  const light = sheet.step(lit, { azimuth, elevation }, height);
  if (paint.translucency) {
    const [share, spread] = paint.translucency;
    const soft = light.copy().blur(spread);
    light.scale(1 - share).add(soft, share);
  }
  if (paint.shadow) {
    const { low, reach } = paint.shadow;
    const shade = sheet.step(shadowed, { azimuth, elevation, reach }, height);
    light.times(shade.blur(0.0007).scale(1 - low, low));
  }
  return light;
}

/** Ambient occlusion after the rule exp(−k1·max(0, blur(h, s1) − h) − k2·max(0, blur(h, s2) − h)), h in px at 1024. */
function occlude(o: NonNullable<Paint['occlusion']>, height: Field): Field {
  const pits = (radius: number, k: number) =>
    height
      .copy()
      .blur(radius)
      .add(height, -1)
      .clamp(0, 1)
      .scale(-k * 1024);
  return pits(o.s1 ?? 0.003, o.k1)
    .add(pits(o.s2 ?? 0.008, o.k2))
    .exp();
}
