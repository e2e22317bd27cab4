import { cut } from '../cut';
import burnt from './generators/burnt';
import crumpled from './generators/crumpled';
import flaking from './generators/flaking';
import handled from './generators/handled';
import knife from './generators/knife';
import leaves from './generators/leaves';
import oil from './generators/oil';
import rag from './generators/rag';
import tile from './generators/tile';
import waterMarks from './generators/water-marks';
import written from './generators/written';
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
import driftwood from './generators/driftwood';
import dryBrush from './generators/dry-brush';
import film from './generators/film';
import fingerprints from './generators/fingerprints';
import foxed from './generators/foxed';
import frame from './generators/frame';
import freckled from './generators/freckled';
import fur from './generators/fur';
import glaze from './generators/glaze';
import haze from './generators/haze';
import hatching from './generators/hatching';
import hessian from './generators/hessian';
import hotPress from './generators/hot-press';
import kraft from './generators/kraft';
import laid from './generators/laid';
import lights from './generators/lights';
import limewash from './generators/limewash';
import linen from './generators/linen';
import marbled from './generators/marbled';
import mesh from './generators/mesh';
import mud from './generators/mud';
import patina from './generators/patina';
import plaster from './generators/plaster';
import rain from './generators/rain';
import rings from './generators/rings';
import rust from './generators/rust';
import silk from './generators/silk';
import skin from './generators/skin';
import skinMade from './generators/skin-made';
import splatter from './generators/splatter';
import stone from './generators/stone';
import stray from './generators/stray';
import streaks from './generators/streaks';
import twill from './generators/twill';
import chalk from './generators/chalk';
import corrugated from './generators/corrugated';
import goldLeaf from './generators/gold-leaf';
import halftone from './generators/halftone';
import newsprint from './generators/newsprint';
import photocopy from './generators/photocopy';
import sand from './generators/sand';
import vellum from './generators/vellum';
import bark from './generators/bark';
import charcoal from './generators/charcoal';
import ice from './generators/ice';
import leather from './generators/leather';
import wetPlate from './generators/wet-plate';
import wash from './generators/wash';
import weatheredWood from './generators/weathered-wood';
import worn from './generators/worn';
import tarPaper from './generators/tar-paper';
import postcard from './generators/postcard';
import mist from './generators/mist';
import hide from './generators/hide';
import scales from './generators/scales';
import lichen from './generators/lichen';
import instant from './generators/instant';
import filmFrame from './generators/film-frame';
import wallpaper from './generators/wallpaper';
import envelope from './generators/envelope';
import tape from './generators/tape';
import wax from './generators/wax';
import leak from './generators/leak';
import lifted from './generators/lifted';
import type { Marks, Material } from './material';

/** The shelf, in the order in which it is shown. */
export const materials: readonly Material[] = [
  coldPress,
  hotPress,
  laid,
  kraft,
  agedPaper,
  foxed,
  rag,
  newsprint,
  vellum,
  crumpled,
  burnt,
  written,
  envelope,
  handled,
  postcard,
  wallpaper,
  tarPaper,
  canvas,
  linen,
  twill,
  hessian,
  silk,
  mesh,
  plaster,
  concrete,
  limewash,
  stone,
  flaking,
  brick,
  tile,
  sand,
  weatheredWood,
  driftwood,
  bark,
  brushed,
  rust,
  patina,
  corrugated,
  goldLeaf,
  craquelure,
  mud,
  glaze,
  film,
  streaks,
  rings,
  splatter,
  fingerprints,
  waterMarks,
  halftone,
  photocopy,
  chalk,
  wetPlate,
  mist,
  tape,
  skin,
  skinMade,
  freckled,
  leather,
  scales,
  hide,
  stray,
  leak,
  haze,
  clouds,
  rain,
  ice,
  lights,
  oil,
  knife,
  wax,
  dryBrush,
  charcoal,
  hatching,
  wash,
  marbled,
  dots,
  fur,
  leaves,
  lichen,
  frame,
  worn,
  deckle,
  lifted,
  filmFrame,
  instant,
];

const byId = new Map(materials.map((m) => [m.id, m]));

/** @throws RangeError naming the id, when there is no such material. */
export function materialById(id: string): Material {
  const found = byId.get(id);
  if (!found) throw new RangeError(`There is no material called "${cut(id)}"; "materials" lists those there are.`);
  return found;
}

export { families, type Material } from './material';

/** Which part of a material paints by default where it is a mask or a tip: its darks if it has dark marks on a light ground, otherwise its lights. */
export function marksOf(id: string): Marks {
  const { marks, luma } = materialById(id);
  return marks ?? (luma >= 0.5 ? 'darks' : 'lights');
}
