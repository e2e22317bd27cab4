import { materialById } from '../materials';
import { moveParams, type Operation } from '../graph/operation';
import { maskPartByKind } from '../mask';
import { mapCoats } from './groups';
import type { Coat, Piece } from './schema';
import { sourceByKind } from '../sources';
import { fitScale, type Lay } from '../lay/lay';
import { nominalOf } from '../lay/nominal';
import { treatmentByKind } from '../treatments';
import type { Size } from '../ready/geometry';
import type { Point } from '../image/projection';
import { turnBy, type Motion } from '../image/motion';
import { motionOf } from '../ready/motion';
import { neutralReady, type Ready } from '../ready/schema';
import { unitOf } from '../image/unit';

/** The piece with another readying; coats, masks and lengths stay on the same points of the photo. */
export function setReady(piece: Piece, after: Ready): Piece {
  const before = piece.ready ?? neutralReady;
  const motion = motionOf(piece.photo, before, after);
  const still = motion.from.width === motion.to.width && motion.from.height === motion.to.height && isStill(motion);
  const coats = still ? piece.coats : mapCoats(piece.coats, (coat) => moveCoatBy(coat, motion));
  const ready = still ? after : moveNeutral(after, motion);
  return { ...piece, ready, coats };
}

const isStill = ({ point, scale, turn, flip }: Motion) => {
  const [x, y] = point([0.25, 0.75]);
  return !flip && Math.abs(turn) < 1e-9 && Math.abs(scale - 1) < 1e-9 && Math.abs(x - 0.25) < 1e-9 && Math.abs(y - 0.75) < 1e-9;
};

/** A picked neutral stays on its spot too. */
function moveNeutral(ready: Ready, motion: Motion): Ready {
  const spot = ready.whiteBalance?.neutral as Point | undefined;
  return spot ? { ...ready, whiteBalance: { ...ready.whiteBalance, neutral: motion.point(spot) } as Ready['whiteBalance'] } : ready;
}

/** Lengths of what is done with the whole of a mask. */
const lengths = ({ feather, expand, line }: Coat['mask'], { length }: Motion) => ({
  feather: length(feather),
  expand: length(expand),
  line: length(line),
});

function moveCoatBy(coat: Coat, motion: Motion): Coat {
  const moveAll = <T extends Coat['mask']['parts'] | Coat['treatments']>(list: T, byKind: (kind: string) => Operation): T =>
    list.map((params) => moveParams(byKind(params.kind as string), params, motion)) as T;
  const parts = moveAll(coat.mask.parts, maskPartByKind);
  const treatments = moveAll(coat.treatments, treatmentByKind);
  const source = moveParams(sourceByKind(coat.source.kind as string), coat.source, motion) as Coat['source'];
  const moved = {
    ...coat,
    source,
    treatments,
    mask: { ...coat.mask, ...lengths(coat.mask, motion), parts },
  };
  if (moved.mask.base) moved.mask.base = moveLay({ ...coat, lay: moved.mask.base }, motion).lay;
  return sourceByKind(coat.source.kind as string).laid ? { ...moved, ...moveLay(moved, motion) } : moved;
}

function moveLay(coat: Coat, motion: Motion): Pick<Coat, 'lay' | 'source'> {
  // Where the faces go, it goes.
  if (coat.lay.faces) return { lay: coat.lay, source: coat.source };
  const { lay } = coat;
  const source = keepShape(coat.source, motion.from);
  const nominal = nominalOf(source, motion.from);
  const [fx, fy] = fitScale(lay, nominal, { ...motion.from, unit: unitOf(motion.from) });
  const [x, y] = motion.point([0.5 + lay.x, 0.5 + lay.y]);
  const next: Lay = { ...lay, x: x - 0.5, y: y - 0.5, turn: turnBy(motion, lay.turn), flipX: motion.flip ? !lay.flipX : lay.flipX };
  const [gx, gy] = fitScale(next, nominal, { ...motion.to, unit: unitOf(motion.to) });
  // What the fit no longer gives is made up by the scale, and by the stretch where the two sides differ.
  const kx = (fx * lay.stretchX * motion.scale) / gx;
  const ky = (fy * lay.stretchY * motion.scale) / gy;
  const scale = Math.sqrt(kx * ky);
  return { source, lay: { ...next, scale: lay.scale * scale, stretchX: kx / scale, stretchY: ky / scale } };
}

/** A material made in the photo's shape keeps the shape in which it was laid. */
function keepShape(source: Coat['source'], frame: Size): Coat['source'] {
  if (source.kind !== 'material' || (source as { aspect?: number }).aspect || materialById(String(source.id)).shape === 'square') return source;
  return { ...source, aspect: frame.width / frame.height } as Coat['source'];
}
