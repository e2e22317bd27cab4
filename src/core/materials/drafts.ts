import { LRUCache } from 'lru-cache';
import type { Machine } from '../image/machine';
import type { Region } from '../image/tile';
import { materialById } from '.';
import { draftOf, drawDraft, drawWhole, partBytes, planesOfDraft, wholeFrame, workingMemory, type Draft } from './generate';
import { peakBytes } from './making/peak';
import { schedule } from './making/schedule';
import type { MaterialPart } from './material';
import type { Lighting } from './sheetLight';
import { coarseAt, coarseBytes, coarseScratch, drawCoarse, sheetFrame, windowScratch } from './windows';

/** A material that is drawn in windows, as plain data. */
export interface SheetOrder {
  id: string;
  seed: number;
  params: Record<string, unknown>;
  /** Width by height. */
  aspect: number;
  part?: MaterialPart;
  lighting?: Lighting;
  /** Pixels on its long side. */
  size: number;
}

/** A material that is drawn whole. Its sides are multiples of 16, which may reach a little further than its aspect. */
export type WholeOrder = Omit<SheetOrder, 'size' | 'aspect'> & { width: number; height: number; aspect?: number };

const aspectOf = ({ width, height, aspect = width / height }: WholeOrder): number => aspect;

/** Working memory: where it begins, and its size. */
export interface Work {
  at: number;
  bytes: number;
}

/** Bytes that the windows of a sheet take: from smaller drawings, working memory for those, and working memory for each window. */
export interface SheetCost {
  coarse: number;
  coarseWork: number;
  work: number;
}

/** Working memory in which any material can be written down. */
export const DRAFT_WORK = 40 * 2 ** 20;
/** Materials that stay written down. */
const KEPT = 8;

/** Draws windows of sheets, and remembers how the last materials are made. */
export class Drafts {
  private readonly kept = new LRUCache<string, Draft>({ max: KEPT });

  constructor(private readonly machine: Machine) {}

  private draft({ id, seed, params, aspect, part, lighting }: Omit<SheetOrder, 'size'>, work: Work): Draft {
    const key = JSON.stringify([id, seed, params, aspect, part, lighting]);
    let draft = this.kept.get(key);
    if (!draft) {
      const memory = workingMemory(work.at, work.bytes);
      draft = draftOf(this.machine, memory, { material: materialById(id), seed, params, aspect, part, lighting });
      this.kept.set(key, draft);
    }
    return draft;
  }

  /** Bytes of working memory for a whole material. */
  wholeCost(order: WholeOrder, work: Work): number {
    const draft = this.draft({ ...order, aspect: aspectOf(order) }, work);
    const frame = wholeFrame(draft, { ...order, material: materialById(order.id) });
    const twice = frame.width === order.width ? 0 : frame.width * frame.height * partBytes(order.part);
    return Math.max(DRAFT_WORK, peakBytes(schedule(planesOfDraft(draft), frame)) + twice);
  }

  /** Draws a whole material. */
  whole(order: WholeOrder, target: number, work: Work): void {
    const draft = this.draft({ ...order, aspect: aspectOf(order) }, work);
    drawWhole(draft, this.machine, workingMemory(work.at, work.bytes), { ...order, material: materialById(order.id) }, target);
  }

  cost(order: SheetOrder, work: Work): SheetCost {
    const draft = this.draft(order, work);
    const atLeast = (bytes: number) => Math.max(DRAFT_WORK, bytes);
    return { coarse: coarseBytes(draft), coarseWork: atLeast(coarseScratch(draft)), work: atLeast(windowScratch(draft, order.size)) };
  }

  /** Draws what the windows of a sheet take from smaller drawings. */
  coarse(order: SheetOrder, target: number, work: Work): void {
    drawCoarse(this.draft(order, work), this.machine, workingMemory(work.at, work.bytes), target);
  }

  /** Draws a window to `target`, in rows that are `pitch` pixels apart. */
  window(order: SheetOrder, window: Region, coarse: number, target: number, pitch: number, work: Work): void {
    const { machine } = this;
    const draft = this.draft(order, work);
    const memory = workingMemory(work.at, work.bytes);
    const pixel = partBytes(order.part);
    const row = window.width * pixel;
    const made = memory.take(row * window.height);
    drawDraft(draft, { machine, memory, frame: sheetFrame(draft, order.size), window, coarse: coarseAt(draft, coarse) }, made);
    for (let j = 0; j < window.height; j++) machine.bytes.copyWithin(target + j * pitch * pixel, made + j * row, made + (j + 1) * row);
  }
}
