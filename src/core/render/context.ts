import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import type { Region, Scratch, Tile } from '../image/tile';
import type { PlannedReady } from '../ready/photo';

/** What operations may ask about the drawing they are part of. */
export interface RenderContext {
  machine: Machine;
  scratch: Scratch;
  photo: Picture;
  /** How the photo is readied; the file as it is when left out. */
  ready?: PlannedReady;
  /** Where the readied photo of the tile that is being drawn is kept half way; see `Plan.readied`. */
  kept?: { region: Region; count: number; margin: number; holds: boolean; at: number; stamp(): void };
  /** The mask of another coat over a region, as a plane; undefined when there is none or it is being asked for itself. */
  maskOf?(context: RenderContext, coat: string, region: Region): number | undefined;
  /**
   * While a treatment is put on: a Gaussian of what it is given, of what lies below, or of the photo, over the tile it works on; undefined where the deviation,
   * in pixels, is not so wide that it has to be taken on a smaller drawing.
   */
  far?(of: 'own' | 'below' | 'photo', sigma: number): Tile | undefined;
  /** Fills a tile with the readied photo, as this drawing or another one of the same piece has it. */
  drawPhoto(tile: Tile, drawing?: RenderContext): void;
  /** Pixels drawn to one pixel of the readied photo. */
  scale: number;
  /** Size of the whole piece (the readied photo) at this scale, not rounded. */
  width: number;
  height: number;
  /** Pixels to one u: 1/2000 of the long side. */
  unit: number;
}
