import agedPaper from './generators/aged-paper';
import brick from './generators/brick';
import brushed from './generators/brushed';
import canvas from './generators/canvas';
import clouds from './generators/clouds';
import coldPress from './generators/cold-press';
import concrete from './generators/concrete';
import craquelure from './generators/craquelure';
import deckle from './generators/deckle';
import dots from './generators/dots';
import dryBrush from './generators/dry-brush';
import film from './generators/film';
import foxed from './generators/foxed';
import frame from './generators/frame';
import freckled from './generators/freckled';
import hessian from './generators/hessian';
import hotPress from './generators/hot-press';
import kraft from './generators/kraft';
import laid from './generators/laid';
import lights from './generators/lights';
import limewash from './generators/limewash';
import linen from './generators/linen';
import mud from './generators/mud';
import patina from './generators/patina';
import plaster from './generators/plaster';
import rings from './generators/rings';
import rust from './generators/rust';
import skin from './generators/skin';
import splatter from './generators/splatter';
import stone from './generators/stone';
import stray from './generators/stray';
import streaks from './generators/streaks';
import weatheredWood from './generators/weathered-wood';
import type { Material } from './material';

/** The shelf, in the order in which it is shown. */
export const materials: readonly Material[] = [
  coldPress,
  hotPress,
  laid,
  kraft,
  agedPaper,
  foxed,
  canvas,
  linen,
  hessian,
  plaster,
  concrete,
  limewash,
  stone,
  brick,
  weatheredWood,
  brushed,
  rust,
  patina,
  craquelure,
  mud,
  film,
  streaks,
  rings,
  splatter,
  skin,
  freckled,
  stray,
  lights,
  clouds,
  dryBrush,
  dots,
  frame,
  deckle,
];

const byId = new Map(materials.map((m) => [m.id, m]));

/** @throws RangeError naming the id, when there is no such material. */
export function materialById(id: string): Material {
  const found = byId.get(id);
  if (!found) throw new RangeError(`There is no material called "${id}"; "materials" lists those there are.`);
  return found;
}

export { families, type Material } from './material';
