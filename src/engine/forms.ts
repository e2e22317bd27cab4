import { contourScratch, type ContourOrder } from '../core/form/contour';
import { drawnFaces, type LightOrder } from '../core/form/faceLight';
import { FIELD_SCRATCH, fieldsBytes, MOST_FIELDS, type FieldOrder, type FormField } from '../core/form/field';
import type { Light } from '../core/form/light';
import { facePlaces, type FacePlace } from '../core/form/places';
import { placeIn } from '../core/form/frame';
import { fingerprint } from '../core/graph/key';
import type { Face, Finding } from '../core/guards/finding';
import type { Picture } from '../core/image/picture';
import { unitOf } from '../core/image/unit';
import type { PictureRef } from '../core/piece/schema';
import type { Framing } from '../core/ready/framing';
import type { FindOptions, Guarded } from './guards';
import type { Library } from './library';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';

/** Sets of fields kept: of one photo in several frames and with several choices of faces. */
const MOST = 6;
const NOTHING: Finding = { version: 1, faces: [], person: null };

/** What is found on a photo, and the photo itself. */
interface Found {
  find(ref: Pick<PictureRef, 'key'>, options?: FindOptions): Promise<Finding>;
  photo(ref: Pick<PictureRef, 'key'>): Promise<Picture>;
  /** The subject of a photo as a grey picture, and the key of that. */
  subject(piece: Guarded): Promise<{ picture: Picture; key: string }>;
}

/** The form of the faces on photos: the light that falls on them, and how textures follow them. */
export class Forms {
  private readonly fieldsHeld: MemoryCache<FormField[]>;
  private readonly coming = new Map<string, Promise<FormField[]>>();

  constructor(
    private readonly pool: Pool,
    private readonly library: Library,
    private readonly found: Found,
  ) {
    this.fieldsHeld = new MemoryCache(pool.heap, { max: MOST });
  }

  /** Forgets what lies in memory: it is gone there. */
  clear(): void {
    this.fieldsHeld.clear();
  }

  /** Where the light on a photo comes from, by the largest face on it that is taken; null without one. */
  async light(piece: Guarded, options: FindOptions = {}): Promise<Light | null> {
    const [face] = drawnFaces(piece.guards, await this.found.find(piece.photo, options));
    if (!face) return null;
    const order: LightOrder = { photo: await this.found.photo(piece.photo), face };
    return this.pool.call<Light | null>({ call: 'light', order });
  }

  /** Where the faces of a photo lie in a frame, the largest first. */
  async faces({ photo, guards }: Guarded, framing: Framing): Promise<{ key: string; faces: FacePlace[] }> {
    const finding = await this.found.find(photo).catch(() => NOTHING);
    const list = drawnFaces(guards, finding);
    const { width, height, file } = framing;
    const faces = facePlaces(list, Math.max(file.width, file.height), placeIn(framing), { width, height, unit: unitOf(framing) });
    return { key: `${photo.key}:${list.map((face) => finding.faces.indexOf(face)).join()}:${fingerprint(framing)}`, faces };
  }

  /** How textures follow the faces of a photo in a frame, the largest first. Its key changes with what it holds. */
  async fields(piece: Guarded, framing: Framing): Promise<{ key: string; fields: readonly FormField[] }> {
    const finding = await this.found.find(piece.photo).catch(() => NOTHING);
    const faces = drawnFaces(piece.guards, finding).slice(0, MOST_FIELDS);
    if (faces.length === 0) return { key: 'none', fields: [] };
    const key = `${piece.photo.key}:${faces.map((face) => finding.faces.indexOf(face)).join()}:${fingerprint(framing)}`;
    const held = this.fieldsHeld.get(key);
    if (held) return { key, fields: held };
    let coming = this.coming.get(key);
    if (!coming) this.coming.set(key, (coming = this.draw(key, faces, finding, framing).finally(() => this.coming.delete(key))));
    return { key, fields: await coming };
  }

  /** How far the subject of a photo is turned towards the viewer. */
  async contour(piece: Guarded): Promise<{ key: string; picture: Picture }> {
    const finding = await this.found.find(piece.photo).catch(() => NOTHING);
    const { picture: subject, key: subjectKey } = await this.found.subject(piece);
    const faces = drawnFaces(piece.guards, finding);
    const key = `${subjectKey}:${faces.map((face) => finding.faces.indexOf(face)).join()}`;
    const size = { width: subject.width, height: subject.height };
    const picture = await this.library.made(
      'contour',
      key,
      size,
      async (target) => {
        const scratch = this.pool.heap.take(contourScratch(size));
        const order: ContourOrder = { subject, faces, size };
        await this.pool.everywhere({ call: 'contour', order, target, scratch }).finally(() => this.pool.heap.give(scratch));
      },
      4,
    );
    return { key, picture };
  }

  private async draw(key: string, faces: readonly Face[], { person }: Finding, framing: Framing): Promise<FormField[]> {
    const { heap } = this.pool;
    const bytes = fieldsBytes(faces.length);
    const target = heap.take(bytes);
    const scratch = heap.take(FIELD_SCRATCH);
    try {
      const order: FieldOrder = { faces, person, framing };
      const fields = await this.pool.everywhere<FormField[]>({ call: 'form', order, target, scratch });
      return this.fieldsHeld.put(key, target, bytes, fields);
    } catch (error) {
      heap.give(target);
      throw error;
    } finally {
      heap.give(scratch);
    }
  }
}
