import albumPage from './recipes/album-page.json';
import carvedStone from './recipes/carved-stone.json';
import charcoalOnLaid from './recipes/charcoal-on-laid.json';
import coldHarbour from './recipes/cold-harbour.json';
import crackedPanel from './recipes/cracked-panel.json';
import darkPlate from './recipes/dark-plate.json';
import flakingMural from './recipes/flaking-mural.json';
import foundReel from './recipes/found-reel.json';
import gildedSeams from './recipes/gilded-seams.json';
import handledSnapshot from './recipes/handled-snapshot.json';
import knifeAndOil from './recipes/knife-and-oil.json';
import kraftPrint from './recipes/kraft-print.json';
import leftInTheSun from './recipes/left-in-the-sun.json';
import letterFromAFire from './recipes/letter-from-a-fire.json';
import mailedCard from './recipes/mailed-card.json';
import oldGlaze from './recipes/old-glaze.json';
import onCanvas from './recipes/on-canvas.json';
import plasterWall from './recipes/plaster-wall.json';
import printedOnBoards from './recipes/printed-on-boards.json';
import rainAtTheWindow from './recipes/rain-at-the-window.json';
import rawLinen from './recipes/raw-linen.json';
import silverSitter from './recipes/silver-sitter.json';
import stainedSheet from './recipes/stained-sheet.json';
import warmDuskHaze from './recipes/warm-dusk-haze.json';
import washOnRoughPaper from './recipes/wash-on-rough-paper.json';
import watercolour from './recipes/watercolour.json';
import inkAndWash from './recipes/ink-and-wash.json';
import pastel from './recipes/pastel.json';
import oil from './recipes/oil.json';
import paletteKnife from './recipes/palette-knife.json';
import posterColours from './recipes/poster-colours.json';
import pencilDrawing from './recipes/pencil-drawing.json';
import softGlow from './recipes/soft-glow.json';
import porcelain from './recipes/porcelain.json';
import crackedFace from './recipes/cracked-face.json';
import skinGrain from './recipes/skin-grain.json';
import mural from './recipes/mural.json';
import fastFilm from './recipes/fast-film.json';
import paintedLight from './recipes/painted-light.json';
import lastReel from './recipes/last-reel.json';
import paperWindow from './recipes/paper-window.json';
import type { LookFamily } from './families';

/** A look that ships: its recipe is as it stands in its file, and is checked by whoever lays it. */
export interface ShippedLook {
  id: string;
  family: LookFamily;
  recipe: { name: string };
}

/** The looks that ship, in the order in which they are shown. Each is a recipe like any other: it can be laid by the command line too. */
export const shippedLooks: readonly ShippedLook[] = [
  { id: 'stained-sheet', family: 'paper', recipe: stainedSheet },
  { id: 'cracked-panel', family: 'paint', recipe: crackedPanel },
  { id: 'left-in-the-sun', family: 'film', recipe: leftInTheSun },
  { id: 'mailed-card', family: 'paper', recipe: mailedCard },
  { id: 'found-reel', family: 'film', recipe: foundReel },
  { id: 'plaster-wall', family: 'walls', recipe: plasterWall },
  { id: 'on-canvas', family: 'paint', recipe: onCanvas },
  { id: 'raw-linen', family: 'paper', recipe: rawLinen },
  { id: 'kraft-print', family: 'paper', recipe: kraftPrint },
  { id: 'charcoal-on-laid', family: 'paint', recipe: charcoalOnLaid },
  { id: 'rain-at-the-window', family: 'light', recipe: rainAtTheWindow },
  { id: 'album-page', family: 'paper', recipe: albumPage },
  { id: 'handled-snapshot', family: 'film', recipe: handledSnapshot },
  { id: 'flaking-mural', family: 'walls', recipe: flakingMural },
  { id: 'silver-sitter', family: 'film', recipe: silverSitter },
  { id: 'warm-dusk-haze', family: 'light', recipe: warmDuskHaze },
  { id: 'cold-harbour', family: 'light', recipe: coldHarbour },
  { id: 'dark-plate', family: 'film', recipe: darkPlate },
  { id: 'letter-from-a-fire', family: 'paper', recipe: letterFromAFire },
  { id: 'carved-stone', family: 'walls', recipe: carvedStone },
  { id: 'wash-on-rough-paper', family: 'paint', recipe: washOnRoughPaper },
  { id: 'knife-and-oil', family: 'paint', recipe: knifeAndOil },
  { id: 'printed-on-boards', family: 'walls', recipe: printedOnBoards },
  { id: 'old-glaze', family: 'walls', recipe: oldGlaze },
  { id: 'watercolour', family: 'paint', recipe: watercolour },
  { id: 'ink-and-wash', family: 'paint', recipe: inkAndWash },
  { id: 'pastel', family: 'paint', recipe: pastel },
  { id: 'oil', family: 'paint', recipe: oil },
  { id: 'palette-knife', family: 'paint', recipe: paletteKnife },
  { id: 'poster-colours', family: 'paint', recipe: posterColours },
  { id: 'pencil-drawing', family: 'paint', recipe: pencilDrawing },
  { id: 'soft-glow', family: 'light', recipe: softGlow },
  { id: 'gilded-seams', family: 'paint', recipe: gildedSeams },
  { id: 'porcelain', family: 'walls', recipe: porcelain },
  { id: 'cracked-face', family: 'walls', recipe: crackedFace },
  { id: 'skin-grain', family: 'light', recipe: skinGrain },
  { id: 'mural', family: 'walls', recipe: mural },
  { id: 'fast-film', family: 'film', recipe: fastFilm },
  { id: 'painted-light', family: 'paint', recipe: paintedLight },
  { id: 'last-reel', family: 'film', recipe: lastReel },
  { id: 'paper-window', family: 'paper', recipe: paperWindow },
];

export { lookFamilies, type LookFamily } from './families';
