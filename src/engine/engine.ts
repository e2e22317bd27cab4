import type { Size } from '../core/image/motion';
import { levelUpTo, pixelBytes, type Picture } from '../core/image/picture';
import { NO_ROOM } from '../core/image/tile';
import type { Border } from '../core/materials/fitting/border';
import type { Fitting } from '../core/materials/fitting/schema';
import type { PictureRef, Piece } from '../core/piece/schema';
import { pieceSize } from '../core/ready/geometry';
import type { Fringes } from '../core/ready/fringes';
import type { Spot } from '../core/ready/spots/schema';
import { compile } from '../core/render/compile';
import { bytesOfPlan, postedPlan, unitOfPlan, type Plan } from '../core/render/plan';
import { drawsSmaller, reachesOf } from '../core/render/reach';
import { Forms } from './forms';
import { Guardian, type Find, type FinderInput } from './guards';
import type { DrawOptions, Drawing } from './drawing';
import { Ahead } from './ahead';
import { Blocks, inParts } from './blocks';
import { Sheets } from './sheets';
import type { Machine } from '../core/image/machine';
import { Keeper } from './keeper';
import { UnchangedMeter } from './unchanged';
import { Nudges } from './nudges';
import { highKey, Library, type Decoded } from './library';
import type { Pool } from './pool';
import { Resolver } from './resolver';
import { Lost, orStopped } from './stopping';
import { Surveyor } from './surveyor';
import { StrokeTables } from './strokeTables';
import { isDeep, type Encoding, type MaterialRequest } from './protocol';

export type { DrawOptions, Drawing };

export interface EngineOptions {
  pool: Pool;
  /** Decodes the file behind a picture's key; with 16 bits a channel where `deep` is asked for and the file has them. */
  decode(key: string, deep?: boolean): Promise<Decoded>;
  encode?(pixels: { at: number; array?: Uint8Array<ArrayBuffer> }, width: number, height: number, encoding: Encoding): Promise<Blob>;
  library?: Library;
  /** Faces and people on a photo; without it only what needs no model is guarded. */
  find?: Find;
  /** False to keep nothing between drawings, for comparing. */
  keeps?: boolean;
}

/** Side of a tile unless a drawing asks for another, and of the smallest that is tried when steps reach far. */
const TILE = 128;
const SMALLEST = 32;
/** Side of a tile that fits a worker's memory with a halo of so many pixels. */
const tileFor = (halo: number): number => (halo > 220 ? 128 : halo > 140 ? 256 : 384);
/** Most that the long side of what a finder sees has. */
const FINDER_SIDE = 2048;

/** Draws pieces. One for the whole application; it owns the pictures in memory and what is kept between drawings. */
export class Engine {
  readonly pool: Pool;
  readonly library: Library;
  readonly guards: Guardian;
  readonly forms: Forms;
  readonly unchanged: UnchangedMeter;
  private readonly nudges: Nudges;
  private readonly tables: StrokeTables;
  private readonly resolver: Resolver;
  private readonly surveyor: Surveyor;
  private readonly keeper: Keeper;
  private readonly ahead: Ahead;
  private readonly sheets: Sheets;
  private readonly blocks: Blocks;
  private losses = 0;
  private output: { at: number; bytes: number } | null = null;

  constructor(private readonly options: EngineOptions) {
    this.pool = options.pool;
    this.library = options.library ?? new Library(options.pool);
    this.tables = new StrokeTables(this.pool);
    this.guards = new Guardian(
      this.pool,
      this.library,
      (ref) => this.finderInput(ref),
      (ref) => this.photo(ref),
      this.tables,
      options.find,
    );
    this.forms = new Forms(this.pool, this.library, {
      find: (ref, how) => this.guards.find(ref, how),
      photo: (ref) => this.photo(ref),
      subject: (piece) => this.guards.picture(piece, { subject: 1 }),
    });
    this.nudges = new Nudges(this.pool);
    this.keeper = new Keeper(this.pool);
    this.ahead = new Ahead(this.pool);
    this.sheets = new Sheets(this.pool);
    this.blocks = new Blocks(this.pool, this.sheets);
    this.surveyor = new Surveyor(this.pool, (plan, keeps) => this.drawPlan(plan, (pixels) => pixels.slice(), {}, keeps ? {} : { keeps }));
    this.resolver = new Resolver(
      this.library,
      this.guards,
      this.forms,
      this.nudges,
      this.tables,
      this.surveyor,
      {
        photo: (key, spots) => this.readied({ key }, spots),
        deepPhoto: (key, spots) => this.deepPhoto(key, spots),
        own: (key, fitting) => this.own(key, fitting),
      },
      this.sheets,
    );
    this.unchanged = new UnchangedMeter(
      this.pool,
      async (drawing, how) => {
        await this.guards.settled(drawing.piece.photo);
        return this.draw(drawing, (pixels) => pixels.slice(), how);
      },
      (drawing) => this.keyOf(drawing),
    );
  }

  /** Forgets all that was loaded or kept in memory; what is wanted is loaded again. */
  forget(): void {
    for (const part of [this.library, this.sheets, this.surveyor, this.keeper, this.guards, this.forms, this.nudges, this.unchanged, this.tables])
      part.clear();
  }

  /** Side of a tile when much is drawn: halos count for less; smaller where tiles are posted. */
  get largeTile(): number {
    return this.pool.shared ? 384 : 256;
  }

  /** Forgets a photo that is not drawn any more. */
  dropPhoto(key: string): void {
    this.library.dropPhoto(key);
  }

  photo(ref: Pick<PictureRef, 'key'>): Promise<Picture> {
    const high = this.library.get(highKey(ref.key));
    return high ? Promise.resolve(high) : this.library.load(`picture:${ref.key}`, () => this.options.decode(ref.key));
  }

  /** The photo with 16 bits a channel, as its high and its low bytes; without low ones where its file has only 8, or spots are taken out of it. */
  private async deepPhoto(key: string, spots: readonly Spot[] = []): Promise<{ picture: Picture; low?: Picture }> {
    if (spots.length > 0) return { picture: await this.readied({ key }, spots) };
    const { high, low } = await this.library.halves(key, () => this.options.decode(key, true));
    return high ? { picture: high, low } : { picture: await this.photo({ key }) };
  }

  /** Whether data is missing in a JPEG file, which a decoder fills with grey. */
  async lacksData(file: Blob): Promise<boolean> {
    return (await this.pool.call<boolean | null>({ call: 'lacks', file })) === true;
  }

  /** Decodes a TIFF, which no browser does, and gives its size. @throws Error when it cannot be decoded. */
  sizeOf(file: Blob): Promise<Size> {
    return this.pool.call<Size>({ call: 'sizeOf', file });
  }

  /** The photo at the largest of its levels that a finder wants. */
  private async finderInput(ref: Pick<PictureRef, 'key'>): Promise<FinderInput> {
    const picture = await this.photo(ref);
    const { at, width, height } = levelUpTo(picture, FINDER_SIDE);
    return { bytes: await this.bytesAt(at, width * height * 4), width, height };
  }

  /** An imported picture, made to fit as a material. */
  private own(key: string, fitting?: Fitting): Promise<Picture> {
    return this.library.own(key, fitting, () => this.options.decode(key, true));
  }

  /** The plain border of an imported picture, as parts of its sides. */
  async border(key: string): Promise<Border | null> {
    return this.pool.call<Border | null>({ call: 'border', picture: await this.own(key) }, this.pool.shared ? undefined : 0);
  }

  /** An imported picture made to fit and reduced to at most `side` pixels, as RGBA8. */
  async ownPixels(
    key: string,
    fitting: Fitting | undefined,
    side: number,
  ): Promise<{ pixels: Uint8Array<ArrayBuffer>; width: number; height: number }> {
    const picture = await this.own(key, fitting);
    const { at, width, height } = levelUpTo(picture, side);
    const bytes = await this.bytesAt(at, width * height * pixelBytes(picture.deep));
    // The high byte of each value, which comes second.
    const pixels = picture.deep ? bytes.filter((_, i) => i % 2 === 1) : bytes;
    return { pixels, width, height };
  }

  private bytesAt(at: number, bytes: number): Promise<Uint8Array<ArrayBuffer>> {
    return this.pool.machine ? Promise.resolve(this.pool.machine.bytes.slice(at, at + bytes)) : this.pool.call({ call: 'read', at, bytes }, 0);
  }

  /** The photo without its spots. */
  private async readied(ref: Pick<PictureRef, 'key'>, spots: readonly Spot[] = []): Promise<Picture> {
    const photo = await this.photo(ref);
    return spots.length > 0 ? this.library.mended(ref.key, photo, [...spots]) : photo;
  }

  /** Where something lies that can take the last spot's place, in fractions of the file from it. */
  async spotSource(piece: Pick<Piece, 'photo' | 'ready'>, spot: Spot): Promise<[number, number]> {
    const picture = await this.readied(piece.photo, piece.ready?.spots);
    const [dx, dy] = await this.pool.call<[number, number]>({ call: 'source', picture, spot }, this.pool.shared ? undefined : 0);
    return [dx / picture.width, dy / picture.height];
  }

  /** How far a photo's red and blue lie off its green. */
  async fringes(piece: Pick<Piece, 'photo'>): Promise<Fringes | null> {
    const picture = await this.photo(piece.photo);
    return this.pool.call<Fringes | null>({ call: 'fringes', picture }, this.pool.shared ? undefined : 0);
  }

  /**
   * Draws a region and hands its pixels to `use`: RGBA8, or RGBA16 in the machine's order of bytes when it is deep. They are a view into shared memory that the next drawing overwrites: copy what is
   * to be kept. @throws Cancelled when stopped.
   */
  async draw<T>(drawing: Drawing, use: (pixels: Uint8Array<ArrayBuffer>, at: number) => T | Promise<T>, options: DrawOptions = {}): Promise<T> {
    let { tile = TILE } = drawing;
    for (let attempt = 0; ; attempt++) {
      if (this.pool.losses !== this.losses) {
        this.losses = this.pool.losses;
        this.forget();
      }
      try {
        const plan = await this.plan({ ...drawing, tile }, options.quick ?? false);
        tile = plan.tile;
        return await this.drawPlan(plan, use, options, { chosen: drawing.chosen });
      } catch (error) {
        if (error instanceof Error && error.message === NO_ROOM && tile > SMALLEST) tile /= 2;
        else if (!(error instanceof Lost) || attempt >= 3) throw error;
      }
    }
  }

  /** Draws the whole piece at a scale and encodes it in a worker. Progress covers both: drawing to 800 of 1000, encoding the rest. */
  async export(drawing: Omit<Drawing, 'region'> & { width: number; height: number }, encoding: Encoding, options: DrawOptions = {}): Promise<Blob> {
    const { width, height } = drawing;
    const { encode } = this.options;
    if (!encode) throw new Error('Pictures cannot be encoded here.');
    const onProgress = (done: number, total: number) => options.onProgress?.(Math.round((done / total) * 800), 1000);
    const finish = async (pixels: Uint8Array<ArrayBuffer>, at: number) => {
      const blob = await orStopped(encode({ at, array: this.pool.shared ? undefined : pixels }, width, height, encoding), options.signal);
      options.onProgress?.(1000, 1000);
      return blob;
    };
    try {
      return await this.draw(
        { full: true, ...drawing, deep: isDeep(encoding), region: { x: 0, y: 0, width, height }, tile: this.largeTile },
        finish,
        {
          ...options,
          onProgress,
        },
      );
    } finally {
      this.trim();
    }
  }

  /** A material by itself, square or in its own shape, as RGBA8. */
  async materialPixels(request: MaterialRequest): Promise<{ pixels: Uint8Array<ArrayBuffer>; width: number; height: number }> {
    const picture = await this.library.material(request);
    const { width, height } = picture;
    return { pixels: await this.bytesAt(picture.levels[0], width * height * 4), width, height };
  }

  private room(bytes: number): number {
    if (!this.output || this.output.bytes < bytes) {
      if (this.output) this.pool.heap.give(this.output.at);
      this.output = { at: this.pool.heap.take(bytes), bytes };
    }
    return this.output.at;
  }

  /** Frees what a large export took. */
  private trim(): void {
    if (this.output && this.output.bytes > 64 * 2 ** 20) {
      this.pool.heap.give(this.output.at);
      this.output = null;
    }
  }

  /** Compiles a drawing, loads what it needs and gives its nodes their keys. */
  private async plan({ piece, region, scale, view, tile = TILE, clear, clipping, deep, full }: Drawing, quick: boolean): Promise<Plan> {
    const graph = compile(piece, view, clear, deep);
    const frame = pieceSize(piece);
    await this.resolver.resolve(graph, { piece, frame, scale, quick, full, drawsSmaller: drawsSmaller(graph, unitOfPlan({ frame, scale })) });
    const plan: Plan = { graph, frame, scale, region, tile, clipping, deep };
    // A worker's memory holds a tile with its halo several times.
    if (tile > TILE) plan.tile = Math.min(tile, tileFor(reachesOf(graph, unitOfPlan(plan)).deepest));
    return plan;
  }

  /** The key of what a drawing shows, whatever its region and scale: equal drawings have equal keys. */
  private async keyOf(drawing: Drawing): Promise<number> {
    const { graph } = await this.plan(drawing, true);
    return graph.nodes[graph.root].key;
  }

  /** Draws a plan with parts of large sheets. Its picture has memory of its own, since other drawings may come in between. */
  private async drawInBlocks<T>(plan: Plan, use: (pixels: Uint8Array<ArrayBuffer>, at: number) => T | Promise<T>, options: DrawOptions): Promise<T> {
    const bytes = plan.region.width * plan.region.height * bytesOfPlan(plan);
    const at = this.pool.heap.take(bytes);
    try {
      await this.blocks.draw(plan, at, options);
      return await use((this.pool.machine as Machine).bytes.subarray(at, at + bytes), at);
    } finally {
      this.pool.heap.give(at);
    }
  }

  /** Draws a plan, keeping what the next drawing may want of it. */
  private async drawPlan<T>(
    plan: Plan,
    use: (pixels: Uint8Array<ArrayBuffer>, at: number) => T | Promise<T>,
    options: DrawOptions = {},
    { keeps = this.options.keeps !== false, chosen }: { keeps?: boolean; chosen?: string } = {},
  ): Promise<T> {
    const { width, height } = plan.region;
    const free = await this.ahead.draw(plan, options);
    if (inParts(plan).length > 0) return this.drawInBlocks(plan, use, options).finally(free);
    const release = keeps ? this.keeper.keep(plan, chosen) : () => undefined;
    try {
      return await this.pool.draw(postedPlan(plan), () => this.room(width * height * bytesOfPlan(plan)), use, options);
    } finally {
      release();
      free();
    }
  }
}
