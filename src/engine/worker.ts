import { lacksData } from '../core/files/jpegWalk';
import { lightOn } from '../core/form/faceLight';
import { drawContour } from '../core/form/contour';
import { drawFields } from '../core/form/field';
import { drawGuard } from '../core/guards/combine';
import { drawCutout } from '../core/guards/cutout';
import { drawRegions } from '../core/guards/regions';
import { MAXIMUM_PAGES, Machine } from '../core/image/machine';
import { buildLevels, pictureBytes, pixelBytes, splitPicture } from '../core/image/picture';
import { Scratch } from '../core/image/tile';
import { Drafts } from '../core/materials/drafts';
import { borderOf, fitPicture } from '../core/materials/fitting/fit';
import { tallyUnchanged } from '../core/measure/unchanged';
import { findFringes } from '../core/ready/fringes';
import { mend } from '../core/ready/spots/mend';
import { pathOf } from '../core/ready/spots/line';
import { findSource } from '../core/ready/spots/source';
import type { Work } from '../core/materials/drafts';
import { drawTile } from '../core/render/draw';
import { bytesOfPlan } from '../core/render/plan';
import { drawNudge } from '../core/nudge/field';
import { measureGrain } from '../core/measure/grain';
import { takeSurvey } from '../core/measure/survey';
import { cutTip } from '../core/strokes/tip';
import { tileRegion, tilesOf } from '../core/graph/slot';
import {
  ACTIVE,
  CANCELLED,
  DONE,
  DRAWN,
  FREE,
  JOB,
  NEXT,
  TAKEN,
  isDeep,
  type Call,
  type Encoding,
  type FromWorker,
  type TileJob,
  type ToWorker,
} from './protocol';

/** What differs between a browser's worker and a thread of Node. */
export interface Host {
  post(message: FromWorker, transfer?: ArrayBuffer[]): void;
  /** `deep`: 16 bits are wanted where the file has them. */
  decode?(file: Blob, deep: boolean): Promise<{ width: number; height: number; deep: boolean }>;
  /** Decodes a picture that the browser does not decode, and gives its size. */
  sizeOf?(file: Blob): Promise<{ width: number; height: number }>;
  place?(machine: Machine, at: number, width: number, height: number): void;
  encode?(pixels: Uint8Array<ArrayBuffer>, width: number, height: number, encoding: Encoding): Promise<Blob>;
}

/** The worker's whole life: answers questions one at a time and draws tiles while there are any. */
export function serve(host: Host): (message: ToWorker) => void {
  let machine: Machine;
  let scratch: Scratch;
  let drafts: Drafts;
  let beat = 0;
  let shared = false;
  let job: TileJob | null = null;

  const orOwn = (work: Work | null): Work => work ?? { at: scratch.start, bytes: scratch.end - scratch.start };

  const answer = async (question: Call): Promise<unknown> => {
    switch (question.call) {
      case 'materialCost':
        return drafts.wholeCost(question.order, orOwn(question.work));
      case 'material':
        return drafts.whole(question.order, question.target, orOwn(question.work));
      case 'sheetCost':
        return drafts.cost(question.order, orOwn(question.work));
      case 'coarse':
        return drafts.coarse(question.order, question.target, orOwn(question.work));
      case 'window': {
        const { order, window, coarse, target, pitch, work } = question;
        return drafts.window(order, window, coarse, target, pitch, orOwn(work));
      }
      case 'levels':
        return buildLevels(machine, question.picture);
      case 'split':
        return splitPicture(machine, question.from, question.high, question.low);
      case 'mend': {
        const { from, to, spots } = question;
        const [start] = from.levels;
        // With its smaller levels, which lie behind it.
        if (to.levels[0] !== start) machine.bytes.copyWithin(to.levels[0], start, start + pictureBytes(from.width, from.height, from.levels.length));
        mend(machine, to, spots, question.scratch);
        return undefined;
      }
      case 'source':
        return findSource(machine, question.picture, pathOf(question.spot, question.picture));
      case 'fringes':
        return findFringes(machine, question.picture);
      case 'survey': {
        const { pixels, width, height, unit, order, target } = question;
        return takeSurvey(machine, pixels, width, height, unit, order, target, question.scratch);
      }
      case 'fit': {
        const { raw, fitting, target } = question;
        return void fitPicture(machine, raw, fitting, target, question.scratch);
      }
      case 'border':
        return borderOf(machine, question.picture);
      case 'regions':
        return drawRegions(machine, question.order, question.target, question.scratch);
      case 'guard':
        return drawGuard(machine, question.order, question.target, question.scratch);
      case 'cutout':
        return drawCutout(machine, question.order, question.alpha, question.edge, question.scratch);
      case 'nudge':
        return drawNudge(machine, question.order, question.work);
      case 'contour':
        return drawContour(machine, question.order, question.target, question.scratch);
      case 'form':
        return drawFields(machine, question.order, question.target, question.scratch);
      case 'light':
        return lightOn(machine, scratch, question.order);
      case 'grain':
        return measureGrain(machine, question.from, question.target);
      case 'tip':
        return cutTip(machine, scratch, question.order, question.target);
      case 'unchanged':
        return tallyUnchanged(machine, question.order, question.scratch);
      case 'read':
        return machine.bytes.slice(question.at, question.at + question.bytes);
      case 'lacks':
        return lacksData(new Uint8Array(await question.file.arrayBuffer()));
      case 'sizeOf':
        return host.sizeOf?.(question.file);
      case 'decode':
        return host.decode?.(question.file, question.deep);
      case 'place':
        return host.place?.(machine, question.at, question.width, question.height);
      case 'encode': {
        const { width, height, pixels, at } = question;
        const size = width * height * pixelBytes(isDeep(question.encoding));
        return host.encode?.(pixels ?? machine.bytes.subarray(at, at + size), width, height, question.encoding);
      }
    }
  };

  return (message) => {
    switch (message.kind) {
      case 'start': {
        shared = message.memory !== null;
        const memory = message.memory ?? new WebAssembly.Memory({ initial: message.pages, maximum: MAXIMUM_PAGES });
        machine = new Machine(message.module, memory);
        drafts = new Drafts(machine);
        scratch = new Scratch(machine, message.scratch, message.scratch + message.scratchBytes);
        beat = message.beat;
        return host.post({ kind: 'ready' });
      }
      case 'grow': {
        const now = machine.memory.buffer.byteLength / 65536;
        if (message.pages > now) machine.memory.grow(message.pages - now);
        return;
      }
      case 'write':
        return machine.bytes.set(message.bytes, message.at);
      case 'tiles':
        job = message.job;
        if (shared) drawWhileThereAreTiles(machine, scratch, beat, message.job, host);
        return;
      case 'tile': {
        if (!job || job.id !== message.job) return;
        try {
          const { width, height } = tileRegion(job.plan.region, job.plan.tile, message.index);
          const at = scratchOutput(scratch);
          drawTile(machine, scratch, job.plan, message.index, at, width);
          const pixels = machine.bytes.slice(at, at + width * height * bytesOfPlan(job.plan));
          host.post({ kind: 'tile', job: message.job, index: message.index, pixels }, [pixels.buffer]);
        } catch (error) {
          host.post({ kind: 'failed', job: message.job, message: String((error as Error).message) });
        }
        return;
      }
      case 'call':
        host.post({ kind: 'heard', ticket: message.ticket });
        void answer(message.question).then(
          (value) => host.post({ kind: 'answer', ticket: message.ticket, value }),
          (error: Error) => host.post({ kind: 'answer', ticket: message.ticket, error: error.message }),
        );
    }
  };
}

/** Where a private worker packs a tile before it posts it: the last 512 KiB of its scratch memory. */
const scratchOutput = (scratch: Scratch) => scratch.end - 512 * 1024;

/** Thrown out of a tile whose drawing is over. */
const OVER = new Error('The drawing is over.');

/** Takes tickets until there are none or the job is cancelled. */
function drawWhileThereAreTiles(machine: Machine, scratch: Scratch, beat: number, job: TileJob, host: Host): void {
  const { plan, output, control, flags } = job;
  const words = new Int32Array(machine.memory.buffer);
  const bytes = new Uint8Array(machine.memory.buffer);
  const at = control / 4;
  if (Atomics.load(words, at + JOB) !== job.id) return host.post({ kind: 'left', job: job.id });
  Atomics.add(words, at + ACTIVE, 1);
  const isOver = () => Atomics.load(words, at + JOB) !== job.id || Atomics.load(words, at + CANCELLED) !== 0;
  // A long tile shows that it goes on, and ends at once when nobody wants it any more.
  machine.pulse = () => {
    Atomics.add(words, beat / 4, 1);
    if (isOver()) throw OVER;
  };
  try {
    const { count, columns } = tilesOf(plan.region, plan.tile);
    // A worker that comes late finds the job over or its control words used for another.
    while (!isOver()) {
      const index = Atomics.add(words, at + NEXT, 1);
      if (index >= count) break;
      if (Atomics.compareExchange(bytes, flags + index, FREE, TAKEN) !== FREE) continue;
      const x = (index % columns) * plan.tile;
      const y = Math.floor(index / columns) * plan.tile;
      const pitch = plan.pitch ?? plan.region.width;
      drawTile(machine, scratch, plan, index, output + (y * pitch + x) * bytesOfPlan(plan), pitch);
      Atomics.store(bytes, flags + index, DRAWN);
      Atomics.add(words, at + DONE, 1);
      Atomics.add(words, beat / 4, 1);
    }
  } catch (error) {
    if (error !== OVER) host.post({ kind: 'failed', job: job.id, message: String((error as Error).message) });
  } finally {
    machine.pulse = null;
    Atomics.sub(words, at + ACTIVE, 1);
    host.post({ kind: 'left', job: job.id });
  }
}
