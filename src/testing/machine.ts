import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Machine, PAGE } from '../core/image/machine';
import { Scratch } from '../core/image/tile';
import { buildLevels, pictureAt, pictureBytes, type Picture } from '../core/image/picture';

const root = process.env.DERMATEX_ROOT ?? process.cwd();

/** Kernels on a private memory of so many MiB; addresses from 64 KiB are free for a test to use. */
export function testMachine(mebibytes = 64): Machine {
  const memory = new WebAssembly.Memory({ initial: mebibytes * 16, maximum: 32768 });
  return new Machine(new WebAssembly.Module(readFileSync(path.join(root, 'public/kernels.wasm'))), memory);
}

/** A machine, scratch memory and a place for pictures behind it. */
export function testBench(mebibytes = 128) {
  const machine = testMachine(mebibytes);
  const scratch = new Scratch(machine, PAGE, PAGE + 32 * 2 ** 20);
  let next = PAGE + 32 * 2 ** 20;
  const take = (bytes: number) => {
    const at = next;
    next += Math.ceil(bytes / 128) * 128;
    return at;
  };
  const picture = (width: number, height: number, pixel: (x: number, y: number) => number[]): Picture => {
    const at = take(pictureBytes(width, height));
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const [r, g, b, a = 255] = pixel(x, y);
        machine.bytes.set([r, g, b, a], at + (y * width + x) * 4);
      }
    }
    const made = pictureAt(at, width, height);
    buildLevels(machine, made);
    return made;
  };
  return { machine, scratch, take, picture };
}

/** Repeatable numbers in 0..1 for tests. */
export function numbers(seed: number): () => number {
  let s = seed >>> 0;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 4294967296;
  };
}

/** An object that throws when it, or anything in it, is changed. */
export function freeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(freeze);
  }
  return value;
}
