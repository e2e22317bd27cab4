import type { Picture } from '../image/picture';
import type { Size } from '../image/motion';
import type { RegionId } from '../guards/schema';
import type { CutSubject } from '../guards/subject';
import type { Lay } from '../lay/lay';
import type { SheetOrder } from '../materials/drafts';
import type { MaterialLight } from '../materials/sheetLight';
import type { Fitting } from '../materials/fitting/schema';
import type { Survey, SurveyOrder } from '../measure/survey';
import type { Framing } from '../ready/framing';
import type { FacePlace } from '../form/places';
import type { FormField } from '../form/field';
import type { NudgeField } from '../nudge/field';
import type { NudgeStroke } from '../nudge/schema';
import type { Spot } from '../ready/spots/schema';
import type { Stroke, Tabled } from '../strokes/schema';

/**
 * What an operation asks to have loaded before it is drawn. The engine loads each need of a graph once, whichever node asks for it. A new kind of need
 * is a line here and a loader in `engine/resolve.ts`.
 */
export type Need =
  /** The piece's photo without its spots, or another photo as it is; `deep` with 16 bits a channel where its file has them. */
  | { need: 'photo'; file?: string; spots?: Spot[]; deep?: boolean }
  /** An imported picture, made to fit as a material. */
  | { need: 'picture'; file: string; fitting?: Fitting }
  /** The grain of an imported picture, by which it goes on where that is enlarged. */
  | { need: 'grain'; file: string; fitting?: Fitting }
  /** A made material, as finely as it is seen under a lay; where a light is given, lit by it however it is turned. */
  | { need: 'material'; id: string; seed: number; params: Record<string, unknown>; aspect?: number; lay: Lay; part?: 'height'; light?: MaterialLight }
  /** Where regions of the piece's photo, or of another one, lie, by their amounts; `plain` leaves out what the person has changed about them. */
  | { need: 'guard'; file?: string; subject?: CutSubject; amounts: Partial<Record<RegionId, number>>; plain?: boolean; waits?: boolean }
  /** A photo's subject as it is cut out: its alpha, or the colour of its edge. */
  | { need: 'cutout'; part: 'alpha' | 'edge'; file?: string; subject?: CutSubject }
  /** How far the subject is turned towards the viewer, as a grey picture over the whole file. */
  | { need: 'contour' }
  /** Offsets that strokes make by hand. */
  | { need: 'nudge'; strokes: readonly NudgeStroke[] }
  /** Where the faces of the photo lie in its frame, the largest first. */
  | { need: 'faces' }
  /** How textures follow the faces on the photo, in a frame. */
  | { need: 'form'; framing: Framing }
  /** Strokes with the tips that they are painted with. */
  | { need: 'strokes'; strokes: readonly Stroke[] }
  /** A measure of the whole of what the node starts from. */
  | ({ need: 'survey' } & SurveyOrder);

/** A much larger drawing of a made material, of which only parts are ever made. */
export interface FineSheet {
  order: SheetOrder;
  /** How much of the sheet is the source. */
  held: Size;
}

/** A part of such a sheet: all that a drawing reads of it. */
export interface FinePart {
  picture: Picture;
  /** How much of the sheet is the source; less than of the whole one where the part is drawn smaller. */
  held: Size;
  /** Where it begins on the sheet. */
  x: number;
  y: number;
}

/** A picture in kernel memory. */
export interface LoadedPicture {
  kind: 'picture';
  picture: Picture;
  /** The low bytes of a picture of 16 bits, of which `picture` holds the high ones. */
  low?: Picture;
  /** The source's own size when `picture` is a smaller or larger rendering of it. */
  nominal?: Size;
  /** How much of `picture`, from its left upper corner, is the source; all of it when left out. */
  held?: Size;
  /** How a picture goes on beyond its own pixels where it is enlarged: `amount` of the grain that `map` holds (`measureGrain`). Left out by what is not. */
  goesOn?: { amount: number; map?: Picture };
  /** Where it is seen larger than `picture` is: the sheet of which parts are drawn. */
  fine?: FineSheet;
  /** The part of that sheet which the drawing under way reads. */
  part?: FinePart;
}
export interface LoadedStrokes {
  kind: 'strokes';
  strokes: (Stroke & Tabled)[];
  /** Pictures of the tips that are cut from materials, by `tipKey`. */
  tips: Record<string, Picture>;
}
export interface LoadedSurvey {
  kind: 'survey';
  survey: Survey;
}
export interface LoadedForm {
  kind: 'form';
  fields: readonly FormField[];
}
export interface LoadedFaces {
  kind: 'faces';
  faces: readonly FacePlace[];
}
export interface LoadedNudge extends NudgeField {
  kind: 'nudge';
}
/** What a need becomes; null where a quick drawing does without it. */
export type Resource = LoadedPicture | LoadedStrokes | LoadedSurvey | LoadedForm | LoadedFaces | LoadedNudge;
export type ResourceKind = Resource['kind'];
