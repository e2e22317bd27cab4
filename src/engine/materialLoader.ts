import type { LoadedPicture, Need } from '../core/graph/needs';
import type { Picture } from '../core/image/picture';
import type { Size } from '../core/image/motion';
import { cornerSpread, NOMINAL } from '../core/lay/lay';
import { nominalOf } from '../core/lay/nominal';
import { materialById } from '../core/materials';
import { materialKey, materialSide, materialSize, type Library } from './library';
import { UNITS } from '../core/image/unit';

/** A material that is not at hand is first made this small, so that something is seen at once. */
const QUICK_SIDE = 256;
/** Sides at which a material may be at hand. */
const SIDES = [2048, 1024, 512, 256];

type MaterialNeed = Need & { need: 'material' };
/** The drawing that a material is loaded for. */
interface Seen {
  frame: Size;
  scale: number;
  quick: boolean;
}

/** Loads made materials as finely as they are seen. */
export class MaterialLoader {
  constructor(private readonly library: Library) {}

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
    const { side, order } = this.orders(need, around, larger);
    const atHand = [side, ...SIDES].map(order).find((o) => quick && this.library.has(materialKey(o)));
    const chosen = atHand ?? order(quick ? Math.min(side, QUICK_SIDE) : side);
    const picture = await this.library.material(chosen);
    const nominal = nominalOf({ kind: 'material', id: need.id, aspect: need.aspect }, frame);
    const share = Math.max(picture.width, picture.height) / NOMINAL;
    const held = { width: nominal.width * share, height: nominal.height * share };
    return { key: materialKey(chosen), resource: { kind: 'picture', picture, nominal, held } };
  }

  /** Whether another drawing is making it. Materials that are scaled to faces are not checked. */
  isComing(need: MaterialNeed, around: Seen): boolean {
    const { side, order } = this.orders(need, around);
    return this.library.isComing(materialKey(order(side)));
  }

  /** The side at which a material will be seen, and what is ordered for a side. */
  private orders({ id, seed, params, lay, part, aspect: own }: MaterialNeed, { frame, scale }: Seen, larger = 1) {
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
    });
    return { side: materialSide(seen, material.fine), order };
  }
}
