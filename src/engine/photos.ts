import { levelUpTo, type Picture } from '../core/image/picture';
import type { Fitting } from '../core/materials/fitting/schema';
import type { PictureRef } from '../core/piece/schema';
import type { Spot } from '../core/ready/spots/schema';
import type { FinderInput } from './guards';
import { highKey, type Decoded, type Library } from './library';
import type { Pool } from './pool';

/** Most that the long side of what a finder sees has. */
const FINDER_SIDE = 2048;

/** Photos and imported pictures, decoded when they are first wanted. */
export class Photos {
  constructor(
    private readonly pool: Pool,
    private readonly library: Library,
    private readonly decode: (key: string, deep?: boolean) => Promise<Decoded>,
  ) {}

  photo(ref: Pick<PictureRef, 'key'>): Promise<Picture> {
    const high = this.library.get(highKey(ref.key));
    return high ? Promise.resolve(high) : this.library.load(`picture:${ref.key}`, () => this.decode(ref.key));
  }

  /** The photo with 16 bits a channel, as its high and its low bytes; without low ones where its file has only 8, or spots are taken out of it. */
  async deepPhoto(key: string, spots: readonly Spot[] = []): Promise<{ picture: Picture; low?: Picture }> {
    if (spots.length > 0) return { picture: await this.readied({ key }, spots) };
    const { high, low } = await this.library.halves(key, () => this.decode(key, true));
    return high ? { picture: high, low } : { picture: await this.photo({ key }) };
  }

  /** The photo at the largest of its levels that a finder wants. */
  async finderInput(ref: Pick<PictureRef, 'key'>): Promise<FinderInput> {
    const picture = await this.photo(ref);
    const { at, width, height } = levelUpTo(picture, FINDER_SIDE);
    return { bytes: await this.bytesAt(at, width * height * 4), width, height };
  }

  /** An imported picture, made to fit as a material. */
  own(key: string, fitting?: Fitting): Promise<Picture> {
    return this.library.own(key, fitting, () => this.decode(key, true));
  }

  bytesAt(at: number, bytes: number): Promise<Uint8Array<ArrayBuffer>> {
    return this.pool.machine ? Promise.resolve(this.pool.machine.bytes.slice(at, at + bytes)) : this.pool.call({ call: 'read', at, bytes }, 0);
  }

  /** The photo without its spots. */
  async readied(ref: Pick<PictureRef, 'key'>, spots: readonly Spot[] = []): Promise<Picture> {
    const photo = await this.photo(ref);
    return spots.length > 0 ? this.library.mended(ref.key, photo, [...spots]) : photo;
  }
}
