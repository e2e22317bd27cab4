import type { Loaded } from '../core/mask/part';
import type { PlannedMask } from '../core/mask/draw';
import { movePart } from '../core/mask';
import type { Stroke } from '../core/mask/parts/strokes';
import { tipKey } from '../core/mask/strokes';
import type { RegionId } from '../core/guards/schema';
import type { Coat } from '../core/piece/schema';
import { motionBy } from '../core/ready/motion';
import { chain, invert, scaled } from '../core/image/projection';
import { layPlace, laySchema, type Lay, type Size } from '../core/sources/lay';
import { nominalOf } from '../core/sources/nominal';
import type { Guarded, Guardian } from './guards';
import type { StrokeTables } from './tables';

type Part = Record<string, unknown>;
/** Loads a material as it will be seen under a lay. */
export type LoadMaterial = (source: Part, lay: Lay) => Promise<Loaded>;

/** Loads the material that a stroke's tip is cut from. */
export type LoadTip = (stroke: Stroke) => Promise<Loaded>;

/** A coat's mask as it is drawn: its parts with what they read, and moved with the coat's lay when it is anchored there. */
export async function planMask(
  coat: Coat,
  piece: Guarded,
  frame: Size,
  guards: Guardian,
  material: LoadMaterial,
  tip: LoadTip,
  tables: StrokeTables,
): Promise<PlannedMask> {
  const { mask } = coat;
  if (mask.parts.length === 0) return mask;
  const parts = anchored(coat, frame);
  const unit = Math.max(frame.width, frame.height) / 2000;
  const inUnits = { width: frame.width / unit, height: frame.height / unit };
  const tabled: Tabling = (strokes) => ({ strokes: strokes.map((stroke) => tables.tabled(stroke, inUnits)) });
  const loaded = await Promise.all(parts.map((part) => load(part, piece, guards, material, tip, tabled)));
  return { ...mask, parts: parts.map((part, i) => (loaded[i] ? { ...part, ...loaded[i] } : part)) };
}

type Tabling = (strokes: Stroke[]) => { strokes: Stroke[] };

/** Pictures of the tips that are cut from materials, by key. */
async function loadTips(strokes: Stroke[], tip: LoadTip): Promise<Loaded['tips']> {
  const tips: NonNullable<Loaded['tips']> = {};
  for (const stroke of strokes) {
    const key = tipKey(stroke);
    if (stroke.tip !== 'cut' || tips[key]) continue;
    const { picture } = await tip(stroke);
    if (picture) tips[key] = picture;
  }
  return tips;
}

async function load(
  part: Part,
  piece: Guarded,
  guards: Guardian,
  material: LoadMaterial,
  tip: LoadTip,
  tabled: Tabling,
): Promise<(Loaded & object) | null> {
  if (part.active === false) return null;
  switch (part.kind) {
    case 'guard':
      return { picture: (await guards.picture(piece, { [part.region as RegionId]: 1 })).picture };
    case 'detail':
      return { picture: (await guards.picture({ photo: piece.photo }, { detail: 1 })).picture };
    case 'material': {
      const { id, seed, params, scale, turn, x, y } = part;
      return material({ kind: 'material', id, seed, params }, laySchema.parse({ fit: 'cover', scale, turn, x, y }));
    }
    case 'strokes':
      return { tips: await loadTips(part.strokes as Stroke[], tip), ...tabled(part.strokes as Stroke[]) };
    default:
      return null;
  }
}

const moved = new WeakMap<object, { lay: Lay; parts: Part[] }>();

/** Parts of a mask that moves with its coat's lay, where that has taken them. The same objects as long as nothing changes. */
function anchored({ mask, lay, source }: Coat, frame: Size): Part[] {
  const { base } = mask;
  if (mask.anchor !== 'lay' || !base) return mask.parts;
  const there = moved.get(mask);
  if (there?.lay === lay) return there.parts;
  const nominal = nominalOf(source, frame);
  const whole = { ...frame, unit: Math.max(frame.width, frame.height) / 2000 };
  const fractions = scaled(1 / frame.width, 1 / frame.height);
  const map = chain(fractions, layPlace(lay, nominal, whole), invert(layPlace(base as Lay, nominal, whole)), scaled(frame.width, frame.height));
  const motion = motionBy(map, frame, frame);
  const parts = mask.parts.map((part) => movePart(part, motion));
  moved.set(mask, { lay, parts });
  return parts;
}
