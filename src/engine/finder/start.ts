import type { Finding } from '../../core/guards/finding';
import { MAXIMUM_PAGES, Machine, PAGE } from '../../core/image/machine';
import { buildLevels, pictureAt, pictureBytes } from '../../core/image/picture';
import { Scratch } from '../../core/image/tile';
import type { FinderInput } from '../guards';
import { Finder } from './finder';
import { loadModels, type ModelFiles, type ModelName } from './models';

const SCRATCH = 8 * 2 ** 20;

/** Models and kernels on a memory of their own. What it gives back finds faces and people on one photo after another. */
export async function startFinder(
  kernels: WebAssembly.Module,
  files: (name: ModelName) => Promise<ModelFiles>,
  wasm: string,
): Promise<(input: FinderInput, onProgress?: (share: number) => void) => Promise<Finding>> {
  const models = await loadModels(files, wasm);
  const memory = new WebAssembly.Memory({ initial: 16 + SCRATCH / PAGE, maximum: MAXIMUM_PAGES });
  const machine = new Machine(kernels, memory);
  const scratch = new Scratch(machine, PAGE, PAGE + SCRATCH);
  const finder = new Finder(machine, scratch, models);
  return async ({ bytes, width, height }, onProgress) => {
    const at = PAGE + SCRATCH;
    const wanted = Math.ceil((at + pictureBytes(width, height)) / PAGE) + 1;
    const there = memory.buffer.byteLength / PAGE;
    if (wanted > there) memory.grow(wanted - there);
    machine.bytes.set(bytes, at);
    const photo = pictureAt(at, width, height);
    buildLevels(machine, photo);
    return finder.find(photo, onProgress);
  };
}
