/** A reader of the bits of a scan; 0xff00 stands for 0xff (ITU-T T.81, F.1.2.3). Reading on past a marker is an error. */
class Bits {
  private held = 0;
  private count = 0;

  constructor(
    private readonly b: Uint8Array,
    public at: number,
  ) {}

  /** @throws RangeError when there are no more bits before the next marker. */
  private fill(): void {
    const { b } = this;
    const byte = b[this.at];
    if (byte === undefined) throw new RangeError('The data ends.');
    if (byte === 0xff) {
      if (b[this.at + 1] !== 0) throw new RangeError('A marker comes too early.');
      this.at++;
    }
    this.at++;
    this.held = ((this.held << 8) | byte) & 0xffffff;
    this.count += 8;
  }

  bit(): number {
    if (this.count === 0) this.fill();
    return (this.held >> --this.count) & 1;
  }

  take(n: number): number {
    let value = 0;
    for (let i = 0; i < n; i++) value = (value << 1) | this.bit();
    return value;
  }

  skip(n: number): void {
    let left = n;
    while (left > this.count) {
      left -= this.count;
      this.count = 0;
      this.fill();
    }
    this.count -= left;
  }

  /** The next eight bits without taking them; fewer are followed by zeros. */
  peek8(): number {
    while (this.count < 8 && this.hasMore()) this.fill();
    return this.count >= 8 ? (this.held >> (this.count - 8)) & 255 : (this.held << (8 - this.count)) & 255;
  }

  get left(): number {
    return this.count;
  }

  private hasMore(): boolean {
    return this.at < this.b.length && !(this.b[this.at] === 0xff && this.b[this.at + 1] !== 0);
  }

  /** Goes on behind the next marker, which must be a restart. */
  restart(): void {
    this.count = 0;
    if (this.b[this.at] !== 0xff || (this.b[this.at + 1] & 0xf8) !== 0xd0) throw new RangeError('A restart is missing.');
    this.at += 2;
  }
}

/** A Huffman table (T.81, annex C): symbols by codes of up to eight bits, and the rest by their largest code of each length. */
class Huffman {
  private readonly short = new Int16Array(256).fill(-1);
  private readonly largest = new Int32Array(18).fill(-1);
  private readonly offset = new Int32Array(18);

  constructor(
    lengths: Uint8Array,
    private readonly symbols: Uint8Array,
  ) {
    let [code, k] = [0, 0];
    for (let length = 1; length <= 16; length++) {
      this.offset[length] = k - code;
      for (let i = 0; i < lengths[length - 1]; i++, code++, k++) {
        if (length > 8) continue;
        const first = code << (8 - length);
        this.short.fill((length << 8) | symbols[k], first, first + (1 << (8 - length)));
      }
      this.largest[length] = lengths[length - 1] > 0 ? code - 1 : -1;
      code <<= 1;
    }
  }

  /** @throws RangeError for a code that the table does not have. */
  decode(bits: Bits): number {
    const found = this.short[bits.peek8()];
    if (found >= 0) {
      bits.skip(found >> 8);
      return found & 255;
    }
    let code = bits.take(8);
    for (let length = 9; length <= 16; length++) {
      code = (code << 1) | bits.bit();
      if (code <= this.largest[length]) return this.symbols[this.offset[length] + code];
    }
    throw new RangeError('There is no such code.');
  }
}

interface Component {
  id: number;
  h: number;
  v: number;
  /** Blocks in a row and in a column, and blocks in a row including those that pad the last unit. */
  columns: number;
  rows: number;
  stride: number;
  /** A bit for each coefficient of a block, 1 where it is not zero: coefficients 0 to 31, and 32 to 63. Only filled for progressive files. */
  low: Uint32Array;
  high: Uint32Array;
  seen: boolean;
}

interface Frame {
  isProgressive: boolean;
  components: Component[];
  unitsAcross: number;
  unitsDown: number;
}

interface Scan {
  components: { component: Component; dc: Huffman | undefined; ac: Huffman | undefined }[];
  from: number;
  to: number;
  isRefining: boolean;
}

/**
 * Checks whether data is missing in a JPEG by walking all of its entropy-coded data (T.81, annexes F and G) without decoding pixels. Decoders fill missing
 * data with grey and report nothing.
 *
 * @returns true when data is missing or cannot be read; false when all is there; null for kinds that are not walked (arithmetic coding, lossless)
 */
export function lacksData(b: Uint8Array): boolean | null {
  try {
    return walk(b);
  } catch (error) {
    if (error instanceof RangeError) return true;
    throw error;
  }
}

function walk(b: Uint8Array): boolean | null {
  const dc: Huffman[] = [];
  const ac: Huffman[] = [];
  let frame: Frame | null = null;
  let interval = 0;
  let at = 2;
  const u16 = (i: number) => (b[i] << 8) | b[i + 1];
  while (at + 1 < b.length) {
    if (b[at] !== 0xff) throw new RangeError('A marker is missing.');
    const marker = b[at + 1];
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === 0xd9) return frame === null || frame.components.some((c) => !c.seen);
    if (marker === 0x01 || (marker >= 0xd0 && marker <= 0xd7)) {
      at += 2;
      continue;
    }
    const end = at + 2 + u16(at + 2);
    if (marker === 0xc4) readTables(b, at + 4, end, dc, ac);
    else if (marker === 0xdd) interval = u16(at + 4);
    else if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc8 && marker !== 0xcc) {
      if (marker > 0xc2) return null;
      frame = readFrame(b, at + 4, marker === 0xc2);
    } else if (marker === 0xda) {
      if (!frame) throw new RangeError('A scan comes before its frame.');
      at = walkScan(b, end, frame, readScan(b, at + 4, frame, dc, ac), interval);
      continue;
    }
    at = end;
  }
  throw new RangeError('The end is missing.');
}

function readTables(b: Uint8Array, from: number, end: number, dc: Huffman[], ac: Huffman[]): void {
  for (let at = from; at + 17 <= end;) {
    const lengths = b.subarray(at + 1, at + 17);
    const count = lengths.reduce((sum, n) => sum + n, 0);
    (b[at] >> 4 ? ac : dc)[b[at] & 15] = new Huffman(lengths, b.subarray(at + 17, at + 17 + count));
    at += 17 + count;
  }
}

function readFrame(b: Uint8Array, at: number, isProgressive: boolean): Frame {
  const [height, width, count] = [(b[at + 1] << 8) | b[at + 2], (b[at + 3] << 8) | b[at + 4], b[at + 5]];
  const sides = Array.from({ length: count }, (_, i) => ({ id: b[at + 6 + 3 * i], h: b[at + 7 + 3 * i] >> 4, v: b[at + 7 + 3 * i] & 15 }));
  const [most, mostDown] = [Math.max(...sides.map((s) => s.h)), Math.max(...sides.map((s) => s.v))];
  if (!(width > 0 && height > 0) || sides.some(({ h, v }) => h < 1 || h > 4 || v < 1 || v > 4)) throw new RangeError('The frame is damaged.');
  const unitsAcross = Math.ceil(width / (8 * most));
  const unitsDown = Math.ceil(height / (8 * mostDown));
  const components = sides.map(({ id, h, v }) => {
    const blocks = isProgressive ? unitsAcross * h * unitsDown * v : 0;
    return {
      id,
      h,
      v,
      columns: Math.ceil(Math.ceil((width * h) / most) / 8),
      rows: Math.ceil(Math.ceil((height * v) / mostDown) / 8),
      stride: unitsAcross * h,
      low: new Uint32Array(blocks),
      high: new Uint32Array(blocks),
      seen: false,
    };
  });
  return { isProgressive, components, unitsAcross, unitsDown };
}

function readScan(b: Uint8Array, at: number, { components }: Frame, dc: Huffman[], ac: Huffman[]): Scan {
  const count = b[at];
  const list = Array.from({ length: count }, (_, i) => {
    const component = components.find((c) => c.id === b[at + 1 + 2 * i]);
    if (!component) throw new RangeError('A scan names a component that there is not.');
    const tables = b[at + 2 + 2 * i];
    return { component, dc: dc[tables >> 4], ac: ac[tables & 15] };
  });
  const rest = at + 1 + 2 * count;
  return { components: list, from: b[rest], to: Math.min(63, b[rest + 1]), isRefining: b[rest + 2] >> 4 > 0 };
}

/** Walks a scan. @returns where the next marker lies. @throws RangeError when something of it is missing. */
function walkScan(b: Uint8Array, at: number, frame: Frame, scan: Scan, interval: number): number {
  const bits = new Bits(b, at);
  const block = blockWalker(frame, scan, bits);
  const alone = scan.components.length === 1 ? scan.components[0] : null;
  const units = alone ? alone.component.columns * alone.component.rows : frame.unitsAcross * frame.unitsDown;
  for (let unit = 0; unit < units; unit++) {
    if (interval > 0 && unit > 0 && unit % interval === 0) {
      bits.restart();
      block.restart();
    }
    if (alone) {
      const { columns, stride } = alone.component;
      block.walk(alone, Math.floor(unit / columns) * stride + (unit % columns));
      continue;
    }
    const [ux, uy] = [unit % frame.unitsAcross, Math.floor(unit / frame.unitsAcross)];
    for (const one of scan.components) {
      const { h, v, stride } = one.component;
      for (let y = 0; y < v; y++) for (let x = 0; x < h; x++) block.walk(one, (uy * v + y) * stride + ux * h + x);
    }
  }
  if (scan.from === 0) for (const { component } of scan.components) component.seen = true;
  // Before the next marker there may only be the rest of a byte, zeros, and fill bytes.
  let next = bits.at - Math.floor(bits.left / 8);
  while (b[next] === 0 || (b[next] === 0xff && b[next + 1] === 0xff)) next++;
  if (b[next] !== 0xff || b[next + 1] === 0) throw new RangeError('There is more data than the picture has.');
  return next;
}

type Tables = Scan['components'][number];

/** Walks the blocks of a scan. Runs of empty blocks carry over from one block to the next. */
function blockWalker({ isProgressive }: Frame, { from, to, isRefining }: Scan, bits: Bits) {
  let run = 0;
  const needed = (table: Huffman | undefined): Huffman => {
    if (!table) throw new RangeError('A table is missing.');
    return table;
  };
  const sequential = ({ dc, ac }: Tables) => {
    bits.skip(needed(dc).decode(bits));
    const table = needed(ac);
    for (let k = 1; k < 64; k++) {
      const symbol = table.decode(bits);
      const size = symbol & 15;
      if (size === 0) {
        if (symbol >> 4 < 15) break;
        k += 15;
        continue;
      }
      k += symbol >> 4;
      if (k > 63) throw new RangeError('A block is too long.');
      bits.skip(size);
    }
  };
  const direct = ({ dc }: Tables) => (isRefining ? bits.skip(1) : bits.skip(needed(dc).decode(bits)));
  const isSet = ({ low, high }: Component, i: number, k: number) => ((k < 32 ? low[i] >>> k : high[i] >>> (k - 32)) & 1) === 1;
  const set = ({ low, high }: Component, i: number, k: number) => {
    if (k < 32) low[i] |= 1 << k;
    else high[i] |= 1 << (k - 32);
  };
  const first = ({ component, ac }: Tables, i: number) => {
    if (run > 0) return void run--;
    const table = needed(ac);
    for (let k = from; k <= to; k++) {
      const symbol = table.decode(bits);
      const [zeros, size] = [symbol >> 4, symbol & 15];
      if (size === 0 && zeros < 15) {
        run = (1 << zeros) - 1 + bits.take(zeros);
        return;
      }
      k += zeros;
      if (size === 0) continue;
      if (k > to) throw new RangeError('A block is too long.');
      bits.skip(size);
      set(component, i, k);
    }
  };
  const refined = ({ component, ac }: Tables, i: number) => {
    let k = from;
    if (run === 0) {
      const table = needed(ac);
      for (; k <= to; k++) {
        const symbol = table.decode(bits);
        let zeros = symbol >> 4;
        const isNew = (symbol & 15) > 0;
        if (!isNew && zeros < 15) {
          run = (1 << zeros) + bits.take(zeros);
          break;
        }
        if (isNew) bits.skip(1);
        // Skip as many zeros as the symbol says; every nonzero coefficient on the way has one correction bit.
        for (; k <= to; k++) {
          if (isSet(component, i, k)) bits.skip(1);
          else if (--zeros < 0) break;
        }
        if (isNew && k <= to) set(component, i, k);
      }
    }
    if (run > 0) {
      for (; k <= to; k++) if (isSet(component, i, k)) bits.skip(1);
      run--;
    }
  };
  const walk = !isProgressive ? sequential : from === 0 ? direct : isRefining ? refined : first;
  return { walk: walk as (tables: Tables, block: number) => void, restart: () => void (run = 0) };
}
