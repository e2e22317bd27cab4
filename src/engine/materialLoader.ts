import type { LoadedPicture, Need } from '../core/graph/needs';
import type { Picture } from '../core/image/picture';
import type { Size } from '../core/image/motion';
import { cornersOf, cornerSpread, layPlace, layProjection, NOMINAL } from '../core/lay/lay';
import { apply } from '../core/image/projection';
import { nominalOf } from '../core/lay/nominal';
import { materialById } from '../core/materials';
import type { MaterialRequest } from './protocol';
import type { SheetOrder } from '../core/materials/drafts';
import { lightingOf, type Lighting } from '../core/materials/sheetLight';
import { SHEET_GRID, sheetSize } from '../core/materials/windows';
import { alikeKey, materialKey, type Library } from './library';
import { materialSide, materialSize } from './materialSize';
import { sheetKey, type Sheets } from './sheets';
import { unitOf, UNITS } from '../core/image/unit';

/** A material that is not at hand is first made this small, so that something is seen at once. */
const QUICK_SIDE = 256;
/** Side of one of which finer parts are drawn. */
const SELDOM_SIDE = 512;
/** Sides at which a material may be at hand. */
const SIDES = [2048, 1024, 512, 256];

type MaterialNeed = Need & { need: 'material' };
/** The drawing that a material is loaded for. */
interface Seen {
  frame: Size;
  scale: number;
  quick: boolean;
  /** Materials as fine as the drawing, however large that is. */
  full?: boolean;
  drawsSmaller?: boolean;
}

/** Long side up to which a sheet is made whole where parts of it would not do, and over which no sheet is drawn. */
const LARGEST_WHOLE = 4096;
const LARGEST = 16384;
/** How many pixels of a sheet in perspective are drawn for one of the picture, about. */
const IN_PERSPECTIVE = 2.4;
/** Long side of a sheet in perspective up to which its far end is as fine when it is read from a common picture. */
const LARGEST_NEAR = 8192;

/** Loads made materials as finely as they are seen. */
export class MaterialLoader {
  constructor(
    private readonly library: Library,
    private readonly sheets: Sheets,
  ) {}

  /** A material small and square: what a tip is cut from. */
  async tip({ id, seed }: { id: string; seed: number }, side: number): Promise<Picture> {
    const square = materialById(id).shape === 'square';
    return this.library.material({ id, seed, params: {}, ...materialSize(id, side, 1), ...(square ? {} : { aspect: 1 }) });
  }

  /**
   * A material as large as it will be seen; a coarser one that is at hand, or a small one, when there is no time.
   *
   * @param larger - How much larger than by its lay's scale it lies on the largest face.
   */
  async load(need: MaterialNeed, around: Seen, larger = 1): Promise<{ key: string; resource: LoadedPicture }> {
    const { quick, frame } = around;
    const { side, order, sheet } = this.orders(need, around, larger);
    const nominal = nominalOf({ kind: 'material', id: need.id, aspect: need.aspect }, frame);
    const heldAt = (long: number) => ({ width: (nominal.width * long) / NOMINAL, height: (nominal.height * long) / NOMINAL });
    const whole = sheet && isReadWhole(need, sheet.size) ? { ...sheet, size: Math.min(sheet.size, LARGEST_WHOLE) } : undefined;
    if (whole && (!quick || this.library.has(wholeKey(whole)))) {
      const picture = await this.wholeSheet(whole);
      return { key: sheetKey(whole), resource: { kind: 'picture', picture, nominal, held: heldAt(whole.size) } };
    }
    const atHand = [side, ...SIDES].map(order).find((o) => quick && this.library.has(materialKey(o)));
    // Where parts are drawn of a sheet, the whole is read by smaller drawings only, and in perspective far away.
    const isSeldomRead = !!sheet && !whole && !around.drawsSmaller && !need.lay.corners;
    // One that the light falls on from elsewhere stands in while the sheet is being turned.
    const alike = quick && !atHand ? this.alike([side, ...SIDES].map((long) => order(long))) : undefined;
    const chosen = atHand ?? order(quick ? Math.min(side, QUICK_SIDE) : isSeldomRead ? Math.min(side, SELDOM_SIDE) : side);
    const far = sheet && !quick && need.lay.corners && sheet.size > LARGEST_NEAR ? { ...sheet, size: LARGEST_WHOLE } : undefined;
    const picture = alike?.picture ?? (await (far ? this.wholeSheet(far) : this.library.material(chosen)));
    const held = heldAt(Math.max(picture.width, picture.height));
    const resource: LoadedPicture = { kind: 'picture', picture, nominal, held };
    if (!sheet || whole || quick) return { key: alike?.key ?? materialKey(chosen), resource };
    return { key: sheetKey(sheet), resource: { ...resource, fine: { order: sheet, held: heldAt(sheet.size) } } };
  }

  /** How many pixels of a large sheet are read with full detail: none where it is not seen larger than it is made without. Faces are taken to be small. */
  detailPixels(need: MaterialNeed, around: { frame: Size; scale: number }): number {
    const { sheet } = this.orders(need, { ...around, quick: false, full: true });
    if (!sheet) return 0;
    if (isReadWhole(need, sheet.size)) return Math.min(sheet.size, LARGEST_WHOLE) ** 2;
    return around.frame.width * around.frame.height * around.scale ** 2 * (need.lay.corners ? IN_PERSPECTIVE : 1);
  }

  /** A sheet at hand that differs from one of those that are wanted in how it is turned under its light only. */
  private alike(orders: MaterialRequest[]): { key: string; picture: Picture } | undefined {
    for (const order of orders) {
      const found = this.library.latest(alikeKey(order));
      if (found) return found;
    }
    return undefined;
  }

  /** A sheet that is drawn whole, in windows. */
  private wholeSheet(order: SheetOrder): Promise<Picture> {
    const size = { ...sheetSize(order), deep: order.part === 'height' };
    return this.library.made(WHOLE, sheetKey(order), size, (picture) => this.sheets.whole(order, size, picture.levels[0]), MOST_WHOLE);
  }

  /** Whether another drawing is making it. Materials that are scaled to faces are not checked. */
  isComing(need: MaterialNeed, around: Seen): boolean {
    const { side, order } = this.orders(need, around);
    return this.library.isComing(materialKey(order(side)));
  }

  /** The side at which a material will be seen, and what is ordered for a side. */
  private orders(need: MaterialNeed, { frame, scale, full }: Seen, larger = 1) {
    const { id, seed, params, lay, part, aspect: own } = need;
    const lighting = lightingUnder(need, frame);
    const aspect = own ?? frame.width / frame.height;
    const material = materialById(id);
    const square = material.shape === 'square';
    const long = Math.max(frame.width, frame.height) * scale;
    const seen =
      (lay.fit === 'tile' || lay.faces ? (long * NOMINAL) / UNITS : long) *
      lay.scale *
      larger *
      Math.max(lay.stretchX, lay.stretchY) *
      cornerSpread(lay);
    const order = (side: number) => ({
      id,
      seed,
      params,
      ...materialSize(id, side, aspect),
      ...(square ? {} : { aspect }),
      ...(part ? { part } : {}),
      ...(lighting ? { lighting } : {}),
    });
    // Pixel for pixel, so that nothing is lost between them; but one that is repeated meets itself at its edges.
    const size = Math.min(LARGEST, lay.fit === 'tile' || lay.faces ? Math.ceil(seen / SHEET_GRID) * SHEET_GRID : Math.round(seen));
    const sheet =
      full && this.sheets.areDrawn && size > SIDES[0] ? { id, seed, params, part, lighting, aspect: square ? 1 : aspect, size } : undefined;
    return { side: materialSide(seen, material.fine), order, sheet };
  }
}

/** The light in a material's sheet, as that lies on the piece. Its height is not lit, nor is one that is painted as it looks. */
function lightingUnder({ id, aspect, lay, part, light }: MaterialNeed, frame: Size): Lighting | undefined {
  if (!light || part || materialById(id).unlit) return undefined;
  const nominal = nominalOf({ kind: 'material', id, aspect }, frame);
  const around = { ...frame, unit: unitOf(frame) };
  const corners = cornersOf(lay);
  const middle = (k: 0 | 1) => (corners ? corners.reduce((sum, corner) => sum + corner[k] / 4, 0) : 0.5);
  return lightingOf(light, layProjection(lay, nominal, around), apply(layPlace(lay, nominal, around), [middle(0), middle(1)]));
}

/** Kind under which sheets that are drawn whole are kept, and how many are. */
const WHOLE = 'sheet';
const MOST_WHOLE = 6;
const wholeKey = (order: SheetOrder) => `${WHOLE}:${sheetKey(order)}`;

/** Whether a drawing reads a sheet in other ways than as one part: mixed, mirrored, on each face, or so often repeated that it is better drawn once. */
function isReadWhole({ id, lay }: MaterialNeed, size: number): boolean {
  const { fit, mix, mirror, faces } = lay;
  const { seamless, shape } = materialById(id);
  return faces || (fit === 'tile' && (size <= LARGEST_WHOLE || mix || mirror || !seamless || shape !== 'square'));
}
