import { tileRegion } from '../graph/slot';
import type { Machine } from '../image/machine';
import type { Scratch } from '../image/tile';
import { unitOfPlan, type Plan } from './plan';
import { Puller } from './pull';

/**
 * Draws tile `index` of a plan as RGBA8 at an address, or as RGBA16 when it is deep. Leaves the scratch memory free.
 *
 * @param output - Address of the tile's left upper pixel.
 * @param pitch - Pixels from one row of the output to the next.
 * @throws RangeError (`NO_ROOM`) when a tile with its halo does not fit the scratch memory.
 */
export function drawTile(machine: Machine, scratch: Scratch, plan: Plan, index: number, output: number, pitch: number): void {
  const region = tileRegion(plan.region, plan.tile, index);
  scratch.reset();
  const { graph, frame, scale, factor } = plan;
  const extent = { scale, width: frame.width * scale, height: frame.height * scale, unit: unitOfPlan(plan) };
  const puller = new Puller(machine, scratch, graph, extent, { region, index }, factor);
  const tile = puller.pull(graph.root, region);
  // Red where white is reached, blue where black is: both far from what a photo holds there.
  if (plan.clipping)
    machine.kernels.markClipped({ tile: tile.ptr, stride: tile.stride, count: tile.count, white: [0.9, 0.1, 0.1], black: [0.1, 0.2, 0.9] });
  const pack = plan.deep ? machine.kernels.packWords : machine.kernels.packBytes;
  pack(tile.ptr, tile.stride, tile.width, tile.height, output, pitch);
}
