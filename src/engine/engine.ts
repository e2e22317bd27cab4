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
import { Guardian, type Find } from './guards';
import type { DrawOptions, Drawing } from './drawing';
import { Ahead } from './ahead';
import { Blocks, blocksOf, inParts } from './blocks';
import { Sheets } from './sheets';
import { Keeper } from './keeper';
import { UnchangedMeter } from './unchanged';
import { Nudges } from './nudges';
import { Library, type Decoded } from './library';
import { Output } from './output';
import { Photos } from './photos';
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
  private readonly output: Output;
  private readonly photos: Photos;

  constructor(private readonly options: EngineOptions) {
    this.pool = options.pool;
    this.library = options.library ?? new Library(options.pool);
    this.photos = new Photos(this.pool, this.library, options.decode);
    this.tables = new StrokeTables(this.pool);
    this.guards = new Guardian(
      this.pool,
      this.library,
      (ref) => this.photos.finderInput(ref),
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
    this.output = new Output(this.pool.heap);
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
        photo: (key, spots) => this.photos.readied({ key }, spots),
        deepPhoto: (key, spots) => this.photos.deepPhoto(key, spots),
        own: (key, fitting) => this.photos.own(key, fitting),
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
    for (const part of [
      this.library,
      this.sheets,
      this.blocks,
      this.surveyor,
      this.keeper,
      this.guards,
      this.forms,
      this.nudges,
      this.unchanged,
      this.tables,
    ])
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
    return this.photos.photo(ref);
  }

  /** Whether data is missing in a JPEG file, which a decoder fills with grey. */
  async lacksData(file: Blob): Promise<boolean> {
    return (await this.pool.call<boolean | null>({ call: 'lacks', file })) === true;
  }

  /** Decodes a TIFF, which no browser does, and gives its size. @throws Error when it cannot be decoded. */
  sizeOf(file: Blob): Promise<Size> {
    return this.pool.call<Size>({ call: 'sizeOf', file });
  }

  /** The plain border of an imported picture, as parts of its sides. */
  async border(key: string): Promise<Border | null> {
    return this.pool.call<Border | null>({ call: 'border', picture: await this.photos.own(key) }, this.pool.shared ? undefined : 0);
  }

  /** An imported picture made to fit and reduced to at most `side` pixels, as RGBA8. */
  async ownPixels(
    key: string,
    fitting: Fitting | undefined,
    side: number,
  ): Promise<{ pixels: Uint8Array<ArrayBuffer>; width: number; height: number }> {
    const picture = await this.photos.own(key, fitting);
    const { at, width, height } = levelUpTo(picture, side);
    const bytes = await this.photos.bytesAt(at, width * height * pixelBytes(picture.deep));
    // The high byte of each value, which comes second.
    const pixels = picture.deep ? bytes.filter((_, i) => i % 2 === 1) : bytes;
    return { pixels, width, height };
  }

  /** Where something lies that can take the last spot's place, in fractions of the file from it. */
  async spotSource(piece: Pick<Piece, 'photo' | 'ready'>, spot: Spot): Promise<[number, number]> {
    const picture = await this.photos.readied(piece.photo, piece.ready?.spots);
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
      this.output.trim();
    }
  }

  /** A material by itself, square or in its own shape, as RGBA8. */
  async materialPixels(request: MaterialRequest): Promise<{ pixels: Uint8Array<ArrayBuffer>; width: number; height: number }> {
    const picture = await this.library.material(request);
    const { width, height } = picture;
    return { pixels: await this.photos.bytesAt(picture.levels[0], width * height * 4), width, height };
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

  /** About how many seconds full detail adds to a drawing of the whole piece; 0 where no material is seen larger than it is made without. */
  detailSeconds({ piece, scale, view, clear }: Pick<Drawing, 'piece' | 'scale' | 'view' | 'clear'>): number {
    return this.resolver.detailPixels(compile(piece, view, clear), { frame: pieceSize(piece), scale }) * this.sheets.secondsPerPixel;
  }

  /** The key of what a drawing shows, whatever its region and scale: equal drawings have equal keys. */
  private async keyOf(drawing: Drawing): Promise<number> {
    const { graph } = await this.plan(drawing, true);
    return graph.nodes[graph.root].key;
  }

  /** Draws a plan, keeping what the next drawing may want of it. */
  private async drawPlan<T>(
    plan: Plan,
    use: (pixels: Uint8Array<ArrayBuffer>, at: number) => T | Promise<T>,
    options: DrawOptions = {},
    { keeps = this.options.keeps !== false, chosen }: { keeps?: boolean; chosen?: string } = {},
  ): Promise<T> {
    const releases = [await this.ahead.draw(plan, options)];
    try {
      if (inParts(plan).length > 0) {
        if (blocksOf(plan).length > 1) return await this.blocks.draw(plan, use, options);
        const { nodes, release } = await this.blocks.withParts(plan, plan.region, { signal: options.signal });
        releases.push(release);
        plan = { ...plan, graph: { ...plan.graph, nodes } };
      }
      if (keeps) releases.push(this.keeper.keep(plan, chosen));
      const { width, height } = plan.region;
      return await this.pool.draw(postedPlan(plan), () => this.output.room(width * height * bytesOfPlan(plan)), use, options);
    } finally {
      for (const release of releases) release();
    }
  }
}
