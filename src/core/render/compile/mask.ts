import { chain, invert, scaled } from '../../image/projection';
import { motionBy, type Size } from '../../image/motion';
import { moveParams } from '../../graph/operation';
import { layPlace, type Lay } from '../../lay/lay';
import { nominalOf } from '../../lay/nominal';
import { maskPartByKind } from '../../mask';
import { treatsWhole } from '../../mask/draw';
import type { Coat } from '../../piece/schema';
import type { GraphBuilder, Surroundings } from './builder';
import { unitOf } from '../../image/unit';

type Part = Record<string, unknown>;

/** Adds the mask of a coat; undefined when the coat applies everywhere. */
export function compileMask(builder: GraphBuilder, coat: Coat, frame: Size, around: Surroundings): number | undefined {
  const { mask } = coat;
  const parts = anchoredParts(coat, frame).filter((part) => part.active !== false);
  if (parts.length === 0 && mask.start === 'all' && !treatsWhole(mask)) return undefined;
  let node = builder.add('even', { value: mask.start === 'all' ? 1 : 0 });
  for (const part of parts) node = compilePart(builder, node, part, around);
  const widest = Math.max(0, ...parts.map((part) => (maskPartByKind(part.kind as string).ownFeather ? 0 : Number(part.feather ?? 0))));
  if (!treatsWhole(mask) && widest === 0) return node;
  const { density, feather, expand, line, refine, invert: inverted } = mask;
  const inputs = { own: node, ...(refine > 0 ? { photo: around.photo } : {}) };
  return builder.add('whole', { density, feather, expand, line, refine, invert: inverted, widest }, { inputs });
}

/** Adds a part over the mask so far. */
function compilePart(builder: GraphBuilder, own: number, params: Part, around: Surroundings): number {
  const part = maskPartByKind(params.kind as string);
  if (part.steps) {
    let node = own;
    for (const { params: values, needs, grows } of part.steps(params)) node = builder.add('part', values, { inputs: { own: node }, needs, grows });
    return node;
  }
  return builder.add('part', params, { inputs: { own, ...builder.inputsOf(part, params, around) }, needs: part.needs?.(params) });
}

const moved = new WeakMap<object, { lay: Lay; frame: Size; parts: Part[] }>();

/** Parts of a mask that moves with its coat's lay, where that has taken them. The same objects as long as nothing changes. */
function anchoredParts({ mask, lay, source }: Coat, frame: Size): Part[] {
  const { base } = mask;
  if (mask.anchor !== 'lay' || !base) return mask.parts;
  const known = moved.get(mask);
  if (known?.lay === lay && known.frame.width === frame.width && known.frame.height === frame.height) return known.parts;
  const nominal = nominalOf(source, frame);
  const whole = { ...frame, unit: unitOf(frame) };
  const fractions = scaled(1 / frame.width, 1 / frame.height);
  const map = chain(fractions, layPlace(lay, nominal, whole), invert(layPlace(base as Lay, nominal, whole)), scaled(frame.width, frame.height));
  const motion = motionBy(map, frame, frame);
  const parts = mask.parts.map((part) => moveParams(maskPartByKind(part.kind as string), part, motion));
  moved.set(mask, { lay, frame, parts });
  return parts;
}
