import { bindKernels, type Kernels } from './kernels.generated';

export type { Kernels };

/** One instance of the kernels on a memory that may be shared with others, and views on it that survive growth. */
export class Machine {
  readonly kernels: Kernels;
  /** Called for every step of a drawing, so that whoever watches knows that a long tile goes on. */
  pulse: (() => void) | null = null;
  private held: {
    buffer: ArrayBufferLike;
    bytes: Uint8Array<ArrayBuffer>;
    floats: Float32Array<ArrayBuffer>;
    words: Uint32Array<ArrayBuffer>;
  } | null = null;

  constructor(
    module: WebAssembly.Module,
    readonly memory: WebAssembly.Memory,
  ) {
    const instance = new WebAssembly.Instance(module, {
      env: {
        memory,
        abort: () => {
          throw new Error('A kernel stopped.');
        },
      },
    });
    this.kernels = bindKernels(instance.exports);
  }

  /** Runs a slow kernel over `height` rows in bands, with a pulse after each. */
  inBands(height: number, run: (y0: number, y1: number) => void): void {
    for (let y = 0; y < height; y += BAND) {
      run(y, Math.min(height, y + BAND));
      this.pulse?.();
    }
  }

  private views() {
    const { buffer } = this.memory;
    if (!this.held || this.held.buffer !== buffer) {
      const plain = buffer as ArrayBuffer;
      this.held = { buffer, bytes: new Uint8Array(plain), floats: new Float32Array(plain), words: new Uint32Array(plain) };
    }
    return this.held;
  }

  get bytes() {
    return this.views().bytes;
  }
  get floats() {
    return this.views().floats;
  }
  get words() {
    return this.views().words;
  }
}

/** Rows of a band. */
const BAND = 48;

export const PAGE = 65536;
/** Most the imported memory may grow to, in pages: 2 GiB, as compiled into the module. */
export const MAXIMUM_PAGES = 32768;
