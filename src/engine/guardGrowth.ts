import { LRUCache } from 'lru-cache';
import { fingerprint } from '../core/graph/key';
import type { GuardGrowth, GuardOrder } from '../core/guards/combine';
import { settingsOf, type Guards, type RegionId, regionIds } from '../core/guards/schema';
import { padded } from '../core/image/tile';
import { UNITS } from '../core/image/unit';
import type { RegionStroke, Tabled } from '../core/strokes/schema';
import { strokeToken } from '../core/strokes/token';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';
import type { StrokeTables } from './strokeTables';

/** Most strokes that can go on growing at once: one guard's, in as many sets of amounts as the coats of a piece usually have. */
const MOST = 4;

type Regions = Guards['regions'];

/**
 * Strokes on guards while they are painted. With each new point only its dabs are laid: the other regions and the region without the stroke stay in memory.
 */
export class GuardGrowths {
  private readonly planes: MemoryCache<{ count: number }>;
  /** Settings of the regions at the last drawing of the same regions with the same amounts. */
  private readonly last = new LRUCache<string, Regions>({ max: 4 * MOST });
  private line: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly pool: Pool,
    private readonly tables: StrokeTables,
  ) {
    this.planes = new MemoryCache(pool.heap, { max: MOST });
  }

  /** Forgets what lies in memory: it is gone there. */
  clear(): void {
    this.planes.clear();
    this.last.clear();
  }

  /**
   * Draws an order. Orders are drawn one after another, because each goes on with the planes of the one before.
   * @param key names the measured regions that the order reads
   */
  draw(key: string, order: GuardOrder, run: (order: GuardOrder) => Promise<number>): Promise<void> {
    const drawn = this.line.then(() => this.drawNow(key, order, run));
    this.line = drawn.catch(() => undefined);
    return drawn;
  }

  private async drawNow(key: string, order: GuardOrder, run: (order: GuardOrder) => Promise<number>): Promise<void> {
    const given = order.settings.regions;
    const base = `${key}|${fingerprint(order.amounts)}`;
    const before = this.last.get(base);
    this.last.set(base, given);
    const ready = { ...order, settings: { regions: this.tabled(given, order.size) } };
    const region = before && this.pool.shared ? growingRegion(before, given) : null;
    if (!region) return void (await run(ready));
    const { strokes, ...rest } = settingsOf(order.settings, region);
    const { [region]: _grows, ...others } = given;
    const name = [base, fingerprint(others), region, fingerprint(rest), ...strokes.slice(0, -1).map(fingerprint)];
    const id = [...name, strokeToken(strokes[strokes.length - 1])].join('|');
    const bytes = (padded(order.size.width, order.size.height) + 8) * 4;
    const kept = this.planes.get(id) ?? this.planes.put(id, this.pool.heap.take(3 * bytes), 3 * bytes, { count: 0 });
    const release = this.planes.use(id);
    try {
      const at = this.planes.addressOf(id);
      const growth: GuardGrowth = { region, others: at, before: at + bytes, cover: at + 2 * bytes, count: kept.count };
      kept.count = await run({ ...ready, growth });
    } catch (error) {
      // Half a drawing may lie there.
      this.planes.drop(id);
      throw error;
    } finally {
      release();
    }
  }

  private tabled(regions: Regions, { width, height }: GuardOrder['size']): Regions {
    const unit = Math.max(width, height) / UNITS;
    const frame = { width: width / unit, height: height / unit };
    const table = (stroke: RegionStroke): RegionStroke & Tabled => (stroke.snap ? stroke : this.tables.tabled(stroke, frame));
    return Object.fromEntries(
      Object.entries(regions).map(([id, region]) => [id, region.strokes ? { ...region, strokes: region.strokes.map(table) } : region]),
    );
  }
}

/** The one region that has changed, if its last stroke may be growing. */
function growingRegion(before: Regions, now: Regions): RegionId | null {
  const changed = regionIds.filter((id) => fingerprint(now[id]) !== fingerprint(before[id]));
  const last = changed.length === 1 ? now[changed[0]]?.strokes?.at(-1) : undefined;
  return last && !last.ring ? changed[0] : null;
}
