import { fingerprint } from '../core/graph/key';
import { drawnIn, nudgeBytes, nudgeScratch, nudgeSize, type NudgeField, type NudgeOrder, type NudgeProgress } from '../core/nudge/field';
import type { NudgeStroke } from '../core/nudge/schema';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';

/** Fields kept: some nine megabytes each. A stroke that is being painted takes a new one for each drawing, as the last is still being read. */
const MOST = 4;

interface Kept {
  field: NudgeField;
  strokes: readonly NudgeStroke[];
  progress: NudgeProgress;
  frame: string;
}

/** Fields of offsets that strokes make, in kernel memory. One goes on from the last where points or strokes were only added. */
export class Nudges {
  private readonly held: MemoryCache<Kept>;
  private coming: Promise<unknown> = Promise.resolve();
  private last: { key: string; kept: Kept } | null = null;

  constructor(private readonly pool: Pool) {
    this.held = new MemoryCache(pool.heap, { max: MOST });
  }

  /** Forgets what lies in memory: it is gone there. */
  clear(): void {
    this.held.clear();
    this.last = null;
  }

  /** The field of strokes on a readied photo. @param frame - Its size in u. */
  field(strokes: readonly NudgeStroke[], frame: { width: number; height: number }): Promise<{ key: string; field: NudgeField }> {
    const size = `${frame.width}x${frame.height}`;
    const key = `${size}:${fingerprint(strokes)}`;
    const next = this.coming.then(async () => {
      const there = this.held.get(key);
      return { key, field: there ? there.field : await this.draw(key, size, strokes, frame) };
    });
    this.coming = next.catch(() => undefined);
    return next;
  }

  private async draw(key: string, size: string, strokes: readonly NudgeStroke[], frame: { width: number; height: number }): Promise<NudgeField> {
    const { heap } = this.pool;
    const grid = nudgeSize(frame);
    const bytes = nudgeBytes(grid);
    // What it goes on from may give way to the new one only when that is drawn.
    const from = this.last && this.held.has(this.last.key) && this.last.kept.frame === size && drawnIn(this.last.kept, strokes) ? this.last : null;
    const release = from ? this.held.use(from.key) : () => undefined;
    const field: NudgeField = { at: heap.take(bytes), ...grid };
    const work = heap.take(nudgeScratch(grid));
    try {
      const order: NudgeOrder = { strokes, field, frame, from: from ? { at: from.kept.field.at, progress: from.kept.progress } : undefined };
      const progress = await this.pool.everywhere<NudgeProgress>({ call: 'nudge', order, work });
      const kept: Kept = { field, strokes, progress, frame: size };
      this.held.put(key, field.at, bytes, kept);
      this.last = { key, kept };
      return field;
    } catch (error) {
      heap.give(field.at);
      throw error;
    } finally {
      heap.give(work);
      release();
    }
  }
}
