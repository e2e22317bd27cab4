/** Names of the kernels that src/kernels/index.ts exports. */

export type KernelName =
  | 'blend'
  | 'sampleAffine'
  | 'sampleArea'
  | 'sampleProjected'
  | 'sampleInPerspective'
  | 'sampleAffineDeep'
  | 'halveDeep'
  | 'meanCells'
  | 'spreadCells'
  | 'isFilled'
  | 'copyPart'
  | 'evenLight'
  | 'stitchAcross'
  | 'stitchDown'
  | 'sampleLens'
  | 'cornerLight'
  | 'markPath'
  | 'sourceGap'
  | 'addSource'
  | 'putSought'
  | 'relax'
  | 'coarsen'
  | 'refine'
  | 'boxMean'
  | 'multiplied'
  | 'splitLuma'
  | 'joinLuma'
  | 'guidedModel'
  | 'calm'
  | 'drawTo'
  | 'localTone'
  | 'lumaOf'
  | 'balanceRanges'
  | 'hueRange'
  | 'markClipped'
  | 'drawFringe'
  | 'linearMatrix'
  | 'applyTable'
  | 'colourful'
  | 'halve'
  | 'packBytes'
  | 'pack16'
  | 'unpack16'
  | 'colorMatrix'
  | 'copyWindow'
  | 'tintByMask'
  | 'lumaPlane'
  | 'premultiply'
  | 'displace'
  | 'relief'
  | 'recombine'
  | 'gradient'
  | 'grain'
  | 'remap'
  | 'extendEdges'
  | 'maskEllipse'
  | 'stampDabs'
  | 'stampCut'
  | 'applyStroke'
  | 'maskLimits'
  | 'maskRamp'
  | 'maskNear'
  | 'joinPart'
  | 'addNoise'
  | 'noiseAt'
  | 'addSpline'
  | 'worley'
  | 'addWhite'
  | 'enlarge'
  | 'fill'
  | 'mixIn'
  | 'times'
  | 'lerpTo'
  | 'clampTo'
  | 'extreme'
  | 'power'
  | 'exponential'
  | 'logarithm'
  | 'absolute'
  | 'smoothstep'
  | 'convolveRows'
  | 'convolveColumns'
  | 'shrink'
  | 'moments'
  | 'light'
  | 'castShadow'
  | 'develop'
  | 'drawStrokes'
  | 'drawSpots'
  | 'distance'
  | 'threadTables'
  | 'weave'
  | 'bricks'
  | 'lookUp'
  | 'timber'
  | 'ribbons'
  | 'drawTriangles'
  | 'readGrid'
  | 'fillPolygon'
  | 'weightedMoments'
  | 'likeness'
  | 'geodesic'
  | 'widen'
  | 'packPlane'
  | 'unpackPlane'
  | 'greyPicture'
  | 'guidedColour'
  | 'applyGuided'
  | 'holdBack'
  | 'timesGrid'
  | 'modelOn'
  | 'signedPicture'
  | 'cutOut'
  | 'ciede2000'
  | 'differences'
  | 'similarity'
  | 'tally'
  | 'heat';
/** Every kernel takes numbers only: addresses in bytes, sizes in pixels, booleans as 0 or 1. */
export type Kernels = Record<KernelName, (...args: number[]) => number>;

/** One instance of the kernels on a memory that may be shared with others, and views on it that survive growth. */
export class Machine {
  readonly kernels: Kernels;
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
    this.kernels = instance.exports as unknown as Kernels;
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

export const PAGE = 65536;
/** Most the imported memory may grow to, in pages: 2 GiB, as compiled into the module. */
export const MAXIMUM_PAGES = 32768;
