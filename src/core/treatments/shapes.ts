import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane } from '../image/blur';
import { enlargeFrom, reducedRegion } from '../image/far';
import { applyModel, modelOf } from '../image/guided';
import { grow, type Tile } from '../image/tile';
import { Planes } from '../image/planes';
import { perceived } from '../measure/paletteSurvey';
import { parseHex } from '../color/srgb';
import { choice, colour, share, slider } from '../schema';
import { faceInput, keepField } from './faces';
import { enlargeAlpha, factorFor, nearReach, regionOn } from './small';
import { defineTreatment } from './treatment';

/** Standard deviation, in pixels, of what rounds borders, at which shapes are worked out. */
const WORKED = 3;
/** The picture is evened out first: radius in u, tolerance in levels, passes. */
const EVEN = { radius: 6, tolerance: 8, passes: 3 };
/** A blur by this part of the root of an area leaves nothing of an island of that area, whatever surrounds it. */
const GONE = 0.3;
const CHROMA = 1.4;

const schema = z.object({
  kind: z.literal('shapes'),
  colours: slider('Colours', 2, 12, 8, { step: 1, help: 'How many colours there are.' }),
  by: choice(
    'Taken by',
    [
      { value: 'colour', label: 'Colour' },
      { value: 'tone', label: 'Light and dark' },
    ],
    'colour',
    { help: 'Colours of the photo, or steps from dark to light.' },
  ),
  island: slider('Smallest shape', 0, 80, 20, { unit: 'u', step: 1, help: 'Smaller shapes go to what surrounds them.' }),
  edges: slider('Round edges', 0.5, 16, 4, { unit: 'u', step: 0.5, help: 'How smooth borders are.' }),
  vivid: share('Stronger colour', 0.2, { help: 'Makes dull colours stronger.' }),
  line: slider('Outlines', 0, 20, 0, { unit: 'u', step: 0.25, help: 'Draws a line around every shape.' }),
  lineColour: colour('Colour of the outlines', '#1c1814', {
    idle: ({ line }) => (line === 0 ? 'It has an effect once there are outlines.' : undefined),
  }),
  keep: keepField,
  seed: z.number().int().min(0).max(1e9).default(1),
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => factorFor(p.edges * unit, WORKED);
const haloOf = (p: Params, unit: number) =>
  EVEN.passes * (2 * Math.ceil(EVEN.radius * unit) + 2) + nearReach(p.island * GONE * unit) + nearReach(p.edges * unit) + 4;

/** Poster shapes: every pixel takes one of a few colours of the picture, small islands go, and borders are rounded. */
export default defineTreatment({
  kind: 'shapes',
  label: 'Poster shapes',
  words: 'poster posterise cutout flat colours simplify cartoon screen print stencil',
  shows: true,
  added: { keep: 0.5 },
  schema,
  source: 'k-means (Lloyd 1982; Arthur & Vassilvitskii 2007) in OKLab (Ottosson 2020); borders where blurred indicators are equal, our own',
  inputs: faceInput,
  needs: ({ colours, by, seed }) => ({ survey: { need: 'survey', radius: 0, eps: 0, palette: { colours: Math.round(colours), by, seed } } }),
  shrinks: factorOf,
  replaces: (p, unit) => factorOf(p, unit) > 1,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? 0 : haloOf(p, unit)) + (p.line > 0 ? Math.ceil((p.line * unit) / 2) + 2 : 0),
  neutral: () => false,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels, floats } = machine;
    const { ptr, stride, count } = tile;
    const mark = scratch.mark();
    const palette = coloursOf(context);
    const factor = factorOf(p, unit);
    const [first, firstIndex, second, secondIndex] = Array.from({ length: 4 }, () => scratch.plane(count + 8, -1));
    const wide = factor === 1 ? 0 : scratch.plane(count + 8);
    const inner = scratch.mark();
    const small = factor === 1 ? tile : context.smaller('own', factor, grow(reducedRegion(tile, factor), haloOf(p, unit / factor)));
    if (factor > 1) enlargeAlpha(context, small, factor, tile);
    const labels = shapesOf(context, small, p, palette, factor, unit / factor);
    const plane = scratch.plane(small.count + 8);
    palette.forEach((_, k) => {
      kernels.indicator(labels, small.count, k, 1, plane);
      softenEdges(context, plane, small, p, factor, unit / factor);
      if (factor > 1) enlargeFrom(machine, scratch, { ...small, ptr: plane }, factor, { ...tile, ptr: wide }, 1);
      kernels.rank(wide || plane, count, k, first, firstIndex, second, secondIndex);
    });
    scratch.release(inner);
    const table = scratch.take(palette.length * 16);
    floats.set(
      palette.flatMap((rgb) => [...vivid(rgb, p.vivid), 1]),
      table / 4,
    );
    // Across a straight border an indicator blurred by σ changes by 1 / (σ√2π) a pixel, and the other one against it.
    const slope = (Math.max(0.4, p.edges * unit) * Math.sqrt(2 * Math.PI)) / 2;
    kernels.paintRanked({ first, firstIndex, second, secondIndex, count, colours: table, slope, dst: ptr, stride });
    if (p.line > 0) drawBorders(context, tile, first, second, slope, p);
    scratch.release(mark);
  },
});

/** Lines along the borders, where the first indicator is hardly ahead of the second; the planes of these are used up. */
function drawBorders({ machine, scratch, unit }: DrawContext, tile: Tile, first: number, second: number, slope: number, p: Params): void {
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const wide = p.line * unit;
  // A line of a pixel on either side, made wider.
  kernels.mixIn(first, second, count, -2 * slope, 2 * slope, 2);
  kernels.clampTo(first, count, 0, 1);
  new Planes(machine, scratch, width, height).widen(first, Math.max(0, wide / 2 - 1));
  kernels.mixIn(first, first, count, Math.min(1, wide / 2), 0, 0);
  parseHex(p.lineColour).forEach((v, c) => {
    kernels.fill(second, count, v);
    kernels.lerpTo(ptr + c * stride, second, first, count);
  });
}

function coloursOf(context: DrawContext): number[][] {
  const flat = context.needed('survey', 'survey').survey.palette ?? [];
  return Array.from({ length: flat.length / 3 }, (_, k) => flat.slice(3 * k, 3 * k + 3));
}

/** A colour further from grey: dull ones by up to all of `amount`, strong ones not at all, or skin turns orange. */
function vivid(rgb: readonly number[], amount: number): number[] {
  const luma = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
  const [, a, b] = perceived(rgb);
  const gain = 1 + amount * Math.max(0, 1 - Math.hypot(a, b) / 20);
  return rgb.map((v) => Math.min(1, Math.max(0, luma + (v - luma) * gain)));
}

/** Which colour each pixel takes, once small islands are gone: a plane of indices. */
function shapesOf(context: DrawContext, tile: Tile, p: Params, palette: number[][], factor: number, unit: number): number {
  const { machine, scratch } = context;
  const { kernels } = machine;
  const { stride, width, height, count } = tile;
  const labels = scratch.plane(count + 8, 0);
  const mark = scratch.mark();
  const even = { ...tile, ptr: scratch.take(3 * stride) };
  machine.bytes.copyWithin(even.ptr, tile.ptr, tile.ptr + 3 * stride);
  const [l, a, b, nearest] = Array.from({ length: 4 }, () => scratch.plane(count + 8, 1e9));
  for (let pass = 0; pass < EVEN.passes; pass++) {
    const inner = scratch.mark();
    kernels.lumaPlane(even.ptr, stride, l, count);
    applyModel(machine, modelOf(machine, scratch, even, l, EVEN.radius * unit, (EVEN.tolerance / 255) ** 2), l, even);
    scratch.release(inner);
  }
  kernels.perceived(even.ptr, stride, count, l, a, b);
  const chroma = p.by === 'tone' ? 0 : CHROMA;
  for (const plane of [a, b]) kernels.mixIn(plane, plane, count, chroma, 0, 0);
  const places = palette.map((rgb) => perceived(rgb).map((v, i) => (i === 0 ? v : chroma * v)));
  places.forEach(([ka, kb, kc], k) => kernels.nearerTo({ a: l, b: a, c: b, count, ka, kb, kc, nearest, label: labels, index: k }));
  if (p.island > 0) {
    const [first, firstIndex, second, secondIndex] = [l, a, b, nearest];
    for (const at of [first, firstIndex, second, secondIndex]) kernels.fill(at, count, -1);
    const plane = scratch.plane(count + 8);
    const sharp = scratch.plane(count + 8);
    const faces = p.keep > 0 ? regionOn(context, 'faces', factor, tile) : null;
    places.forEach((at, k) => {
      // What differs strongly from every other colour survives smaller: a flame, the light in an eye.
      const apart = Math.min(...places.map((other, i) => (i === k ? Infinity : Math.hypot(...other.map((v, c) => v - at[c])))));
      kernels.indicator(labels, count, k, 1 + 0.8 * Math.min(1, Math.max(0, (apart - 12) / 30)), plane);
      kernels.copyWindow(plane, width, sharp, width, width, height);
      blurPlane(machine, scratch, plane, width, height, p.island * GONE * unit);
      if (faces !== null) {
        blurPlane(machine, scratch, sharp, width, height, 0.35 * p.island * GONE * unit);
        keepSharp(machine, plane, sharp, faces, count, p.keep);
      }
      kernels.rank(plane, count, k, first, firstIndex, second, secondIndex);
    });
    kernels.copyWindow(firstIndex, width, labels, width, width, height);
  }
  scratch.release(mark);
  return labels;
}

/** Towards what is less blurred where faces are. The plane of what is less blurred is used up. */
function keepSharp({ kernels }: DrawContext['machine'], plane: number, sharp: number, faces: number, count: number, keep: number): void {
  kernels.mixIn(sharp, plane, count, keep, -keep, 0);
  kernels.multiplied(sharp, faces, sharp, count);
  kernels.mixIn(plane, sharp, count, 1, 1, 0);
}

/** Rounds the borders of an indicator, by half as much at faces. */
function softenEdges(context: DrawContext, plane: number, tile: Tile, { edges, keep }: Params, factor: number, unit: number): void {
  const { machine, scratch } = context;
  const { width, height, count } = tile;
  const mark = scratch.mark();
  const faces = keep > 0 ? regionOn(context, 'faces', factor, tile) : null;
  if (faces === null) blurPlane(machine, scratch, plane, width, height, edges * unit);
  else {
    const sharp = scratch.plane(count + 8);
    machine.kernels.copyWindow(plane, width, sharp, width, width, height);
    blurPlane(machine, scratch, sharp, width, height, 0.5 * edges * unit);
    blurPlane(machine, scratch, plane, width, height, edges * unit);
    keepSharp(machine, plane, sharp, faces, count, keep);
  }
  scratch.release(mark);
}
