import { LRUCache } from 'lru-cache';
import { fromBase64 } from '../core/guards/bytes';
import type { GuardOrder } from '../core/guards/combine';
import { faceTaken, personTaken, type Finding } from '../core/guards/finding';
import { HEAD_SCRATCH, planeOf, regionSize, regionsBytes, regionsScratch, type RegionOrder } from '../core/guards/regions';
import { guardsSchema, regionIds, settingsOf, type FoundId, type Guards, type RegionId } from '../core/guards/schema';
import { alphaLevel, type Path } from '../core/guards/cutout';
import type { Picture } from '../core/image/picture';
import { fingerprint, identify } from '../core/graph/key';
import type { PictureRef, Piece } from '../core/piece/schema';
import { GuardGrowths } from './guardGrowth';
import type { Library } from './library';
import type { Pool } from './pool';
import type { StrokeTables } from './strokeTables';

/** What a finder is given: RGBA8 of the photo, reduced. */
export interface FinderInput {
  bytes: Uint8Array<ArrayBuffer>;
  width: number;
  height: number;
}
export interface FindOptions {
  signal?: AbortSignal;
  onProgress?(share: number): void;
}
/** Finds faces and people on the photo of a key; it asks for the pixels only when it has to look. */
export type Find = (key: string, input: () => Promise<FinderInput>, options: FindOptions) => Promise<Finding>;

export type Guarded = Pick<Piece, 'photo' | 'guards'>;

/** Regions that are measured without any model. */
const BY_PIXELS: readonly RegionId[] = ['detail', 'accents', 'kept', 'painted'];
const NO_HAIRS: Guards['hairs'] = [];
/** A stroke of more strength than this says for sure where the subject is. */
const FIRM = 0.9;
const NO_HINTS: Guards['hints'] = [];
const NO_GUARDS: Pick<Guards, 'regions'> = { regions: {} };
const NEUTRAL = guardsSchema.parse({});
const NOTHING: Finding = { version: 1, faces: [], person: null };
/** Sets of measured regions kept: of this photo as it is and as it was before the last change of its faces or hints. */
const MOST = 3;

/** Regions of photos in kernel memory, and the pictures by which coats are held back. */
export class Guardian {
  private findings = new Map<string, Promise<Finding>>();
  /** Photos on which looking has ended, one way or the other, and those on which it came to nothing: drawing does not try these again. */
  private readonly known = new Set<string>();
  private readonly failed = new Set<string>();
  private readonly measured = new LRUCache<string, { at: Promise<number>; id: number }>({
    max: MOST,
    dispose: ({ at }) => void at.then((address) => this.pool.heap.give(address)).catch(() => undefined),
  });
  private readonly growths: GuardGrowths;
  private sets = 0;

  constructor(
    private readonly pool: Pool,
    private readonly library: Library,
    private readonly input: (ref: Pick<PictureRef, 'key'>) => Promise<FinderInput>,
    private readonly photo: (ref: Pick<PictureRef, 'key'>) => Promise<Picture>,
    tables: StrokeTables,
    private readonly look?: Find,
  ) {
    this.growths = new GuardGrowths(pool, tables);
  }

  /** Forgets what lies in memory: it is gone there. */
  clear(): void {
    this.measured.clear();
    this.growths.clear();
  }

  /** Whether a drawing would have to wait for faces and people to be found. */
  waits({ photo, guards }: Guarded): boolean {
    return guards !== undefined && this.look !== undefined && !this.known.has(photo.key);
  }

  /** Whether faces and people have been looked for on a photo, so that asking for them costs nothing. */
  hasFound({ photo }: Guarded): boolean {
    return this.look !== undefined && this.known.has(photo.key) && !this.failed.has(photo.key);
  }

  /** Waits until looking has ended, if it has begun or must begin. */
  async settled(ref: Pick<PictureRef, 'key'>): Promise<void> {
    if (!this.failed.has(ref.key)) await this.find(ref).catch(() => undefined);
  }

  /** Faces and people on a photo, looked for once. */
  find(ref: Pick<PictureRef, 'key'>, options: FindOptions = {}): Promise<Finding> {
    const there = this.findings.get(ref.key);
    if (there) return there;
    if (!this.look) return Promise.resolve(NOTHING);
    this.failed.delete(ref.key);
    const finding = this.look(ref.key, () => this.input(ref), options);
    this.findings.set(ref.key, finding);
    // One that failed or was stopped may be tried again.
    finding.then(
      () => this.known.add(ref.key),
      () => {
        this.findings.delete(ref.key);
        this.known.add(ref.key);
        this.failed.add(ref.key);
      },
    );
    return finding;
  }

  /** Address of the planes of all regions, and a number that this measuring alone has: addresses are used again. */
  async regions({ photo: ref, guards }: Guarded, needsFinding = true): Promise<{ at: number; id: number; size: { width: number; height: number } }> {
    const photo = await this.photo(ref);
    // What needs no model does not wait for one.
    const finding = needsFinding && !this.failed.has(ref.key) ? await this.find(ref).catch(() => NOTHING) : NOTHING;
    const size = regionSize(photo);
    const faces = finding.faces.filter((_, i) => faceTaken(guards, finding, i));
    // Hints are told apart as objects: all empty lists are one.
    const hints = guards?.hints.length ? guards.hints : NO_HINTS;
    const standsOut = guards?.standsOut ?? false;
    const takesPerson = personTaken(guards, finding);
    const key = `${ref.key}:${+standsOut}:${+takesPerson}:${finding === NOTHING ? 'none' : finding.faces.map((_, i) => +faceTaken(guards, finding, i)).join('')}:${identify(hints)}`;
    let held = this.measured.get(key);
    if (!held) {
      const person = takesPerson && finding.person && { ...finding.person, bytes: fromBase64(finding.person.map) };
      held = { at: this.measure({ photo, faces, person: person || null, hints, standsOut }), id: ++this.sets };
      this.measured.set(key, held);
      held.at.catch(() => this.measured.delete(key));
    }
    return { at: await held.at, id: held.id, size };
  }

  private async measure(order: RegionOrder): Promise<number> {
    const size = regionSize(order.photo);
    const { heap } = this.pool;
    const target = heap.take(regionsBytes(size));
    const scratch = heap.take(regionsScratch(size) + HEAD_SCRATCH);
    try {
      await this.pool.everywhere({ call: 'regions', order, target, scratch });
      return target;
    } catch (error) {
      heap.give(target);
      throw error;
    } finally {
      heap.give(scratch);
    }
  }

  /** How far coats with these amounts are held back. Its key changes with what it holds. */
  async picture(piece: Guarded, amounts: Partial<Record<RegionId, number>>): Promise<{ picture: Picture; key: string }> {
    const needsFinding = regionIds.some((id) => (amounts[id] ?? 0) > 0 && !BY_PIXELS.includes(id));
    const { at, id, size } = await this.regions(piece, needsFinding);
    // Only regions that hold something back matter: a stroke on one leaves the pictures of the others as they are.
    const used = regionIds.filter((region) => (amounts[region] ?? 0) > 0);
    const given = (piece.guards ?? NO_GUARDS).regions;
    const settings = { regions: Object.fromEntries(used.map((region) => [region, given[region] ?? {}])) };
    const strokes = used.includes('kept') ? (piece.guards?.kept ?? []) : [];
    const kept = strokes.length > 0 ? strokes : undefined;
    const snaps = used.some((region) => given[region]?.strokes?.some(({ snap }) => snap));
    const photo = kept || snaps ? await this.photo(piece.photo) : undefined;
    const key = `${piece.photo.key}:${id}:${kept ? identify(strokes) : ''}:${used.map((region) => `${region}=${amounts[region]}:${fingerprint(settings.regions[region])}`).join()}`;
    const picture = await this.library.made('guard', key, size, async (target) => {
      const scratch = this.pool.heap.take(regionsScratch(size));
      try {
        await this.growths.draw(
          `${piece.photo.key}:${id}:${kept ? identify(strokes) : ''}`,
          { planes: at, size, settings, amounts, kept, photo },
          (order: GuardOrder) => this.pool.everywhere<number>({ call: 'guard', order, target, scratch }),
        );
      } finally {
        this.pool.heap.give(scratch);
      }
    });
    return { picture, key };
  }

  /** The subject of a photo as it is cut out: its alpha, and the colour of its edge. */
  async cutout(piece: Guarded): Promise<{ alpha: Picture; edge: Picture; key: string }> {
    const photo = await this.photo(piece.photo);
    // Who cuts out the subject has asked for it, however sure it is.
    const guards = { ...(piece.guards ?? NEUTRAL), person: piece.guards?.person ?? true };
    const { picture: subject, key } = await this.picture({ ...piece, guards }, { subject: 1 });
    const hairs = piece.guards?.hairs ?? NO_HAIRS;
    const name = `${key}:${identify(hairs)}`;
    const painted = settingsOf(guards, 'subject')
      .strokes.filter(({ strength }) => strength > FIRM)
      // One that snaps may end well within its ring.
      .map(({ size, snap, points }): Path => ({ size: snap ? size / 2 : size, points: points.map(([x, y]) => [x, y]) }));
    const { width, height } = alphaLevel(photo);
    const made = { width: subject.width, height: subject.height };
    let alpha: Picture | undefined;
    const edge = await this.library.made(
      'cut-edge',
      name,
      made,
      async (edge) => {
        alpha = await this.library.made(
          'cut-alpha',
          name,
          { width, height },
          async (target) => {
            const scratch = this.pool.heap.take(regionsScratch(made));
            try {
              await this.pool.everywhere({ call: 'cutout', order: { photo, subject, hairs, painted }, alpha: target, edge, scratch });
            } finally {
              this.pool.heap.give(scratch);
            }
          },
          4,
        );
      },
      4,
    );
    alpha ??= this.library.get(`cut-alpha:${name}`);
    if (!alpha) {
      // Its other half gave way: both are made again.
      this.library.drop(`cut-edge:${name}`);
      return this.cutout(piece);
    }
    return { alpha, edge, key: name };
  }

  /** Where a region's plane lies as it was found, and its size. */
  async plane(piece: Guarded, id: FoundId): Promise<{ at: number; width: number; height: number }> {
    const { at, size } = await this.regions(piece);
    return { at: planeOf(at, size, id), ...size };
  }

  /** A region as it was found, a byte a pixel. */
  async bytes(piece: Guarded, id: FoundId): Promise<Uint8Array<ArrayBuffer>> {
    const { at, width, height } = await this.plane(piece, id);
    const { machine } = this.pool;
    return machine ? machine.bytes.slice(at, at + width * height) : this.pool.call({ call: 'read', at, bytes: width * height }, 0);
  }
}
