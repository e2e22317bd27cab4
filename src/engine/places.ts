import { growing, maskReadsBelow } from '../core/mask/draw';
import type { Loaded } from '../core/mask/part';
import type { Stroke } from '../core/mask/parts/strokes';
import { identify } from '../core/piece/identity';
import type { Coat, Piece } from '../core/piece/schema';
import { marginOf } from '../core/ready/photo';
import { slotAt, slotBytes, type CacheSlot, type Plan, type PlannedCoat } from '../core/render/plan';
import type { Region } from '../core/image/tile';
import type { Pool } from './pool';
import { strokeToken } from './tables';

/** Most places kept, each as large as a drawing. */
const KEPT = 16;

/** Pictures that a coat was planned with: which they are is not said by the coat alone. */
const picturesOf = (coat: PlannedCoat): string => {
  const parts = coat.mask.parts.map((p) => (p as Loaded).picture);
  return [coat.picture, coat.cut?.alpha, coat.cut?.edge, ...parts].map((picture) => picture?.levels[0] ?? '').join('.');
};

/** Places in shared memory where parts of a drawing are kept for the next one, by what they were drawn from. */
export class Places {
  private slots = new Map<string, { at: number; stamp: number; used: number; region: Region; tile: number }>();
  private stamps = 0;
  private clock = 0;
  private lastReady = new Map<string, { steps: string[]; count: number }>();

  constructor(private readonly pool: Pool) {}

  /** For the coat that is worked on: all below it, its own treated source, and its mask but for the stroke that is being painted. */
  ofCoat(plan: Plan, piece: Pick<Piece, 'coats' | 'photo' | 'ready' | 'guards'>, index: number, held: readonly string[]): void {
    const { coats, region, scale, tile } = plan;
    const coat = piece.coats[index];
    const { x, y, width, height } = region;
    const place = [
      piece.photo.key,
      piece.ready ? identify(piece.ready) : '',
      piece.guards ? identify(piece.guards) : '',
      scale,
      `${x},${y},${width},${height}`,
      tile,
    ].join('|');
    const under = piece.coats.slice(0, index).map((c, i) => `${identify(c)}.${picturesOf(coats[i])}.${held[i]}`);
    plan.below = { index, slot: this.slot(`below|${place}|${under.join()}`, region, tile) };
    plan.stroked = this.stroked(coat, coats[index], index, place, region, tile);
    const own = [coat.source, coat.lay, coat.treatments].map((part) => identify(part as object));
    plan.treated = { index, slot: this.slot(`treated|${place}|${own.join()}|${picturesOf(coats[index])}`, region, tile) };
  }

  /** Where the mask of a coat that is being painted on is kept; undefined where it hangs on more than the photo and its own parts. */
  private stroked({ mask }: Coat, planned: PlannedCoat, index: number, place: string, region: Region, tile: number): Plan['stroked'] {
    const last = growing(mask);
    if (!last || mask.anchor === 'lay' || maskReadsBelow(mask) || mask.parts.some((p) => p.kind === 'coat')) return undefined;
    const strokes = mask.parts[mask.parts.length - 1].strokes as Stroke[];
    const pictures = planned.mask.parts.map((p) => (p as Loaded).picture?.levels[0] ?? '');
    const before = [mask.start, ...mask.parts.slice(0, -1).map(identify), '|', ...strokes.slice(0, -1).map(identify), '|', ...pictures];
    const keys = [`mask|${place}|${before.join()}`, `cover|${place}|${strokeToken(last)}`];
    const [kept, cover] = keys.map((key) => this.slot(key, region, tile));
    return { index, mask: kept, cover };
  }

  /**
   * While one step of readying is worked on, those before it stay as they are: the photo up to there is kept. The step is known by what differs
   * from the drawing before.
   */
  halfReadied(plan: Plan): Plan {
    const { ready, photo, region, scale, tile } = plan;
    if (!ready || !this.pool.shared || tile > 128) return plan;
    const { treatments, ...geometry } = ready;
    const place = JSON.stringify([geometry, photo.levels[0], region, scale, tile, treatments.length]);
    const steps = treatments.map((t) => JSON.stringify(t, (key, value: unknown) => (key === 'survey' ? undefined : value)));
    const before = this.lastReady.get(place);
    this.lastReady.delete(place);
    const differs = before ? steps.findIndex((s, i) => s !== before.steps[i]) : -1;
    const count = differs < 0 ? Math.min(steps.length, before?.count ?? 0) : differs;
    this.lastReady.set(place, { steps, count });
    if (this.lastReady.size > 24) this.lastReady.delete(this.lastReady.keys().next().value as string);
    if (!before) return plan;
    // Geometry alone is cheap enough unless a lens has to be put right.
    if (count === 0 && !ready.lens && treatments.length < 3) return plan;
    const margin = marginOf(ready, count, (Math.max(ready.width, ready.height) * scale) / 2000);
    return { ...plan, readied: { count, margin, slot: this.slot(`ready|${place}|${steps.slice(0, count).join()}|${margin}`, region, tile, margin) } };
  }

  private slot(key: string, region: Region, tile: number, margin = 0): CacheSlot {
    let slot = this.slots.get(key);
    if (!slot) {
      if (this.slots.size >= KEPT) {
        const [oldest, old] = [...this.slots.entries()].sort((a, b) => a[1].used - b[1].used)[0];
        this.slots.delete(oldest);
        this.pool.heap.give(old.at);
      }
      slot = { at: this.pool.heap.take(slotBytes(region, tile, margin)), stamp: ++this.stamps, used: 0, region, tile };
      this.slots.set(key, slot);
    }
    slot.used = ++this.clock;
    return slotAt(slot.at, region, tile, slot.stamp);
  }
}
