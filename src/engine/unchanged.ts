import { addTallies, unchangedOf, unchangedScratch, WINDOW, type Unchanged, type UnchangedOrder, type Tally } from '../core/measure/unchanged';
import { pieceSize } from '../core/ready/geometry';
import { foundIds, type FoundId } from '../core/guards/schema';
import type { View } from '../core/render/view';
import type { Region } from '../core/image/tile';
import type { DrawOptions, Drawing } from './drawing';
import type { Pool } from './pool';

export type UnchangedReport = Partial<Record<FoundId, Unchanged>>;

/** Pixels of a live measurement, and of one band of an exact one. */
const LIVE = 120_000;
const BAND = 500_000;

type Draw = (drawing: Drawing, options: DrawOptions) => Promise<Uint8Array<ArrayBuffer>>;

/** Measures how much of each region of the photo the coats have left. The photo and the regions are drawn once and kept. */
export class UnchangedMeter {
  private held = new Map<string, Promise<Uint8Array<ArrayBuffer>>>();

  constructor(
    private readonly pool: Pool,
    private readonly draw: Draw,
    /** A key that is equal for drawings that show the same. */
    private readonly keyOf: (drawing: Drawing) => Promise<number>,
  ) {}

  clear(): void {
    this.held.clear();
  }

  /** `exact`: at the photo's own pixels, in bands; else reduced to about a tenth of a megapixel. */
  async measure(piece: Drawing['piece'], exact: boolean, options: DrawOptions = {}): Promise<UnchangedReport> {
    const { width: W, height: H } = pieceSize(piece);
    const scale = exact ? 1 : Math.min(1, Math.sqrt(LIVE / (W * H)));
    const [width, height] = [Math.max(1, Math.round(W * scale)), Math.max(1, Math.round(H * scale))];
    const rows = exact ? Math.max(32, Math.floor(BAND / width)) : height;
    const totals: Tally[] = [];
    for (let y = 0; y < height; y += rows) {
      const top = Math.max(0, y - WINDOW);
      const bottom = Math.min(height, y + rows + WINDOW);
      const region = { x: 0, y: top, width, height: bottom - top };
      const tallies = await this.band(piece, region, scale, y - top, Math.min(height, y + rows) - top, !exact);
      tallies.forEach((t, i) => (totals[i] = totals[i] ? addTallies(totals[i], t) : t));
      options.onProgress?.(Math.min(height, y + rows), height);
      options.signal?.throwIfAborted();
    }
    const report: UnchangedReport = {};
    foundIds.forEach((id, i) => {
      const kept = unchangedOf(totals[i]);
      if (kept) report[id] = kept;
    });
    return report;
  }

  private async band(piece: Drawing['piece'], region: Region, scale: number, top: number, bottom: number, keep: boolean): Promise<Tally[]> {
    const bare = { ...piece, coats: [] };
    const draw = (view: View, of: Drawing['piece']) => this.draw({ piece: of, region, scale, view }, { quick: true });
    const once = async (view: View) => {
      if (!keep) return draw(view, bare);
      const key = await this.keyOf({ piece: bare, region, scale, view });
      return this.once(`${key}|${region.width}x${region.height}`, () => draw(view, bare));
    };
    const result = await draw({ kind: 'piece' }, piece);
    const photo = await once({ kind: 'photo' });
    const masks: Uint8Array[] = [];
    for (const id of foundIds) masks.push(await once({ kind: 'guards', region: id, colour: [0, 0, 0], bare: true }));
    return this.tally(photo, result, masks, region, top, bottom);
  }

  private async tally(
    photo: Uint8Array,
    result: Uint8Array,
    masks: Uint8Array[],
    { width, height }: Region,
    top: number,
    bottom: number,
  ): Promise<Tally[]> {
    const { heap } = this.pool;
    const count = width * height;
    const plane = Math.ceil((count * 4 + 16) / 128) * 128;
    const at = heap.take(count * 8 + 256 + plane * masks.length);
    const scratch = heap.take(unchangedScratch(width, height));
    try {
      this.pool.write(at, photo as Uint8Array<ArrayBuffer>);
      this.pool.write(at + count * 4, result as Uint8Array<ArrayBuffer>);
      const first = at + Math.ceil((count * 8) / 128) * 128;
      const addresses = masks.map((mask, i) => {
        this.pool.write(first + i * plane, mask as Uint8Array<ArrayBuffer>);
        return first + i * plane;
      });
      const order: UnchangedOrder = { photo: at, result: at + count * 4, masks: addresses, width, height, top, bottom };
      return await this.pool.call<Tally[]>({ call: 'unchanged', order, scratch }, this.pool.shared ? undefined : 0);
    } finally {
      heap.give(at);
      heap.give(scratch);
    }
  }

  private once(key: string, make: () => Promise<Uint8Array<ArrayBuffer>>): Promise<Uint8Array<ArrayBuffer>> {
    let there = this.held.get(key);
    if (!there) {
      there = make();
      // What was measured for an older state goes.
      if (this.held.size > 40) this.held.delete(this.held.keys().next().value as string);
      there.catch(() => this.held.delete(key));
    } else this.held.delete(key);
    this.held.set(key, there);
    return there;
  }
}
