import agedPaper from './generators/aged-paper';
import brick from './generators/brick';
import canvas from './generators/canvas';
import coldPress from './generators/cold-press';
import craquelure from './generators/craquelure';
import film from './generators/film';
import linen from './generators/linen';
import plaster from './generators/plaster';
import skin from './generators/skin';
import weatheredWood from './generators/weathered-wood';
import type { Material } from './material';

/** The shelf, in the order in which it is shown. */
export const materials: readonly Material[] = [coldPress, agedPaper, canvas, linen, plaster, brick, weatheredWood, craquelure, film, skin];

const byId = new Map(materials.map((m) => [m.id, m]));

/** @throws RangeError naming the id, when there is no such material. */
export function materialById(id: string): Material {
  const found = byId.get(id);
  if (!found) throw new RangeError(`There is no material called "${id}"; "materials" lists those there are.`);
  return found;
}

export { families, type Material } from './material';
