import type { GuardOrder } from '../core/guards/combine';
import type { LightOrder } from '../core/form/faceLight';
import type { ContourOrder } from '../core/form/contour';
import type { FieldOrder } from '../core/form/field';
import type { CutoutOrder } from '../core/guards/cutout';
import type { RegionOrder } from '../core/guards/regions';
import type { Picture } from '../core/image/picture';
import type { UnchangedOrder } from '../core/measure/unchanged';
import type { SheetOrder, Work } from '../core/materials/drafts';
import type { Lighting } from '../core/materials/sheetLight';
import type { Region } from '../core/image/tile';
import type { MaterialPart } from '../core/materials/material';
import type { NudgeOrder } from '../core/nudge/field';
import type { RawPicture } from '../core/materials/fitting/fit';
import type { Fitting } from '../core/materials/fitting/schema';
import type { Spot } from '../core/ready/spots/schema';
import type { SurveyOrder } from '../core/measure/survey';
import type { Plan } from '../core/render/plan';
import type { TipOrder } from '../core/strokes/tip';

/** What a material is made from, without functions, so that it can be posted. */
export interface MaterialRequest {
  id: string;
  seed: number;
  params: Record<string, unknown>;
  width: number;
  height: number;
  /** Width by height of the piece whose shape it takes; its sides are multiples of 16 and reach a little further. */
  aspect?: number;
  part?: MaterialPart;
  lighting?: Lighting;
}

/** How a picture is written; `deep` with 16 bits a channel. */
export type Encoding = { type: 'image/png' | 'image/tiff'; deep?: boolean } | { type: 'image/jpeg' | 'image/webp'; quality: number };

export const isDeep = (encoding: Encoding): boolean => 'deep' in encoding && encoding.deep === true;

/** Questions a worker answers once each. */
export type Call =
  | { call: 'material'; order: MaterialRequest; target: number; work: Work | null }
  /** Bytes of working memory that a material takes. */
  | { call: 'materialCost'; order: MaterialRequest; work: Work | null }
  /** What windows of a material that is drawn in parts take. */
  | { call: 'sheetCost'; order: SheetOrder; work: Work | null }
  /** Draws what these windows take from smaller drawings. */
  | { call: 'coarse'; order: SheetOrder; target: number; work: Work | null }
  | { call: 'window'; order: SheetOrder; window: Region; coarse: number; target: number; pitch: number; work: Work | null }
  | { call: 'levels'; picture: Picture }
  /** A picture of 16 bits, as two of 8: its high bytes and its low ones. */
  | { call: 'split'; from: Picture; high: Picture; low: Picture }
  /** Copies a picture without its spots. */
  | { call: 'mend'; from: Picture; to: Picture; spots: Spot[]; scratch: number }
  /** Where something lies that can take a spot's place: an offset in pixels. */
  | { call: 'source'; picture: Picture; spot: Spot }
  | { call: 'fringes'; picture: Picture }
  | { call: 'survey'; pixels: number; width: number; height: number; unit: number; order: SurveyOrder; target: number; scratch: number }
  /** Makes a picture fit as a material. */
  | { call: 'fit'; raw: RawPicture; fitting: Fitting; target: number; scratch: number }
  | { call: 'border'; picture: Picture }
  /** Measures the regions of a photo, and how far coats are held back by them. */
  | { call: 'regions'; order: RegionOrder; target: number; scratch: number }
  /** Whether data is missing in a JPEG file. */
  | { call: 'lacks'; file: Blob }
  | { call: 'guard'; order: GuardOrder; target: Picture; scratch: number }
  | { call: 'cutout'; order: CutoutOrder; alpha: Picture; edge: Picture; scratch: number }
  /** Where the light on a face comes from. */
  | { call: 'light'; order: LightOrder }
  /** Offsets that strokes make by hand. */
  | { call: 'nudge'; order: NudgeOrder; work: number }
  /** How far the subject is turned towards the viewer. */
  | { call: 'contour'; order: ContourOrder; target: Picture; scratch: number }
  /** How textures follow faces: fields of offsets. */
  | { call: 'form'; order: FieldOrder; target: number; scratch: number }
  /** Measures the grain of a picture. */
  | { call: 'grain'; from: Picture; target: Picture }
  | { call: 'tip'; order: TipOrder; target: Picture }
  | { call: 'unchanged'; order: UnchangedOrder; scratch: number }
  | { call: 'read'; at: number; bytes: number }
  | { call: 'sizeOf'; file: Blob }
  | { call: 'decode'; file: Blob; deep: boolean }
  | { call: 'place'; at: number; height: number; width: number }
  | { call: 'encode'; at: number; pixels?: Uint8Array<ArrayBuffer>; width: number; height: number; encoding: Encoding };

export interface TileJob {
  id: number;
  plan: Plan;
  /** Shared memory: where the picture goes, and the addresses of the job's control words and of one byte a tile. */
  output: number;
  control: number;
  flags: number;
}

export type ToWorker =
  | {
      kind: 'start';
      module: WebAssembly.Module;
      memory: WebAssembly.Memory | null;
      pages: number;
      scratch: number;
      scratchBytes: number;
      beat: number;
    }
  | { kind: 'grow'; pages: number }
  | { kind: 'write'; at: number; bytes: Uint8Array }
  | { kind: 'tiles'; job: TileJob }
  | { kind: 'tile'; job: number; index: number }
  | { kind: 'call'; ticket: number; question: Call };

export type FromWorker =
  | { kind: 'ready' }
  | { kind: 'tile'; job: number; index: number; pixels: Uint8Array }
  | { kind: 'left'; job: number }
  | { kind: 'failed'; job: number; message: string }
  | { kind: 'heard'; ticket: number }
  | { kind: 'answer'; ticket: number; value?: unknown; error?: string };

/** Control words of a tile job, as indices of 32-bit words. */
export const NEXT = 0;
export const DONE = 1;
export const ACTIVE = 2;
export const CANCELLED = 3;
export const JOB = 4;
export const CONTROL_WORDS = 8;

/** One byte a tile: free, taken by a worker, drawn. */
export const FREE = 0;
export const TAKEN = 1;
export const DRAWN = 2;

/** Bytes of its own that each worker has for one tile and its halo. */
export const SCRATCH_BYTES = 64 * 2 ** 20;
