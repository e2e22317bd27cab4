import type { Loaded } from '../core/mask/part';
import type { Stroke } from '../core/mask/parts/strokes';
import type { Picture } from '../core/image/picture';
import { materialById } from '../core/materials';
import type { Fitting } from '../core/materials/fitting/schema';
import type { Coat } from '../core/piece/schema';
import type { PlannedCoat } from '../core/render/plan';
import { cornerSpread, NOMINAL, type Lay } from '../core/sources/lay';
import { nominalOf } from '../core/sources/nominal';
import type { Drawing } from './engine';
import type { Guardian } from './guards';
import { materialKey, materialSide, materialSize, type Library } from './library';
import { planMask, type LoadMaterial } from './masks';
import type { StrokeTables } from './tables';

/** A material that is not at hand is first made this small, so that something is seen at once. */
const QUICK_SIDE = 256;
/** Side of the picture that a tip is cut from. */
const TIP_SIDE = 256;

/** Pictures that a coat may be made of. */
export interface Pictures {
  photo(ref: { key: string }): Promise<Picture>;
  own(key: string, fitting?: Fitting): Promise<Picture>;
}

/** Loads what a coat needs: its source, its mask's pictures and tips. */
export class CoatPlanner {
  constructor(
    private readonly library: Library,
    private readonly guards: Guardian,
    private readonly tables: StrokeTables,
    private readonly pictures: Pictures,
  ) {}

  async plan(coat: Coat, piece: Drawing['piece'], photo: { width: number; height: number }, scale: number, quick: boolean): Promise<PlannedCoat> {
    const source = coat.source as { kind: string; file?: string; fitting?: Fitting };
    const material: LoadMaterial = (from, lay) => this.laidMaterial(from, lay, photo, scale, quick);
    const planned = { ...coat, mask: await planMask(coat, piece, photo, this.guards, material, (stroke) => this.tip(stroke), this.tables) };
    if (source.kind === 'picture') return { ...planned, picture: await this.pictures.own(source.file ?? '', source.fitting) };
    if (source.kind === 'cutout') {
      const of = source.file ? { photo: { ...piece.photo, key: source.file } } : piece;
      return { ...planned, cut: await this.guards.cutout(of), ...(source.file ? { picture: await this.pictures.photo({ key: source.file }) } : {}) };
    }
    return source.kind === 'material' ? { ...planned, ...(await material(coat.source, coat.lay)) } : planned;
  }

  /** A material small and square: what a tip is cut from. */
  private async tip({ material }: Stroke): Promise<Loaded> {
    const { id, seed } = material ?? { id: '', seed: 1 };
    const square = materialById(id).shape === 'square';
    return { picture: await this.library.material({ id, seed, params: {}, ...materialSize(id, TIP_SIDE, 1), ...(square ? {} : { aspect: 1 }) }) };
  }

  /** A material as large as it will be seen. */
  private async laidMaterial(
    source: Record<string, unknown>,
    lay: Lay,
    photo: { width: number; height: number },
    scale: number,
    quick: boolean,
  ): Promise<Loaded> {
    const {
      id = '',
      seed = 1,
      params = {},
      aspect: own,
    } = source as { id?: string; seed?: number; params?: Record<string, unknown>; aspect?: number };
    const aspect = own ?? photo.width / photo.height;
    const material = materialById(id);
    const square = material.shape === 'square';
    const nominal = nominalOf(source, photo);
    const long = Math.max(photo.width, photo.height) * scale;
    const seen = (lay.fit === 'tile' ? (long * NOMINAL) / 2000 : long) * lay.scale * Math.max(lay.stretchX, lay.stretchY) * cornerSpread(lay);
    const order = (side: number) => ({ id, seed, params, ...materialSize(id, side, aspect), ...(square ? {} : { aspect }) });
    const side = materialSide(seen, material.fine);
    const at = [side, 2048, 1024, 512, 256].map(order).find((o) => quick && this.library.has(materialKey(o)));
    const picture = await this.library.material(at ?? order(quick ? Math.min(side, QUICK_SIDE) : side));
    const held = Math.max(picture.width, picture.height) / NOMINAL;
    return { nominal, held: { width: nominal.width * held, height: nominal.height * held }, picture };
  }
}
