import { fingerprint, nodeKey } from '../core/graph/key';
import type { Need, Resource } from '../core/graph/needs';
import type { Graph } from '../core/graph/node';
import type { Size } from '../core/image/motion';
import { guardsSchema } from '../core/guards/schema';
import { guardsOfSubject } from '../core/guards/subject';
import type { FacePlace } from '../core/form/places';
import { levelUpTo, type Picture } from '../core/image/picture';
import { largestOnFaces } from '../core/lay/onFaces';
import type { Piece } from '../core/piece/schema';
import { planReady } from '../core/ready/plan';
import type { Fitting } from '../core/materials/fitting/schema';
import type { Spot } from '../core/ready/spots/schema';
import { tipKey } from '../core/strokes/tip';
import type { Stroke } from '../core/strokes/schema';
import type { Forms } from './forms';
import type { Guarded, Guardian } from './guards';
import { MaterialLoader } from './materialLoader';
import type { Nudges } from './nudges';
import type { Library } from './library';
import { MOST_OF_ONE_DRAWING, type StrokeTables } from './strokeTables';
import type { Sheets } from './sheets';
import type { Surveyor } from './surveyor';
import { unitOf } from '../core/image/unit';

/** Longest side of what a tip is cut from. */
const TIP_SIDE = 512;

/** Something loaded, and the key that names its content. */
interface LoadedNeed {
  key: string;
  resource: Resource | null;
}

/** Pictures that an engine can load. */
export interface Pictures {
  /** A photo, without its spots. */
  photo(key: string, spots?: Spot[]): Promise<Picture>;
  /** The same with 16 bits a channel where its file has them. */
  deepPhoto(key: string, spots?: Spot[]): Promise<{ picture: Picture; low?: Picture }>;
  own(key: string, fitting?: Fitting): Promise<Picture>;
}

/** The drawing that needs are loaded for. */
export interface DrawnFor {
  piece: Guarded & Pick<Piece, 'ready'>;
  /** Size of the readied photo in its own pixels. */
  frame: Size;
  scale: number;
  /** Take what is at hand rather than wait. */
  quick: boolean;
  /** Materials as fine as the drawing, however large that is. */
  full?: boolean;
  /** Something of it is drawn smaller, and reads materials so. */
  drawsSmaller?: boolean;
}

const spotsPrint = (spots: Spot[] | undefined) => (spots && spots.length > 0 ? fingerprint(spots) : '');
const picture = (key: string, loaded: Picture): LoadedNeed => ({ key, resource: { kind: 'picture', picture: loaded } });
const NO_CORRECTIONS = guardsSchema.parse({});
const NOTHING: LoadedNeed = { key: 'nothing', resource: null };

/** Loads what the nodes of a graph need, each need once, and gives the nodes their keys. */
export class Resolver {
  private readonly materials: MaterialLoader;

  constructor(
    private readonly library: Library,
    private readonly guards: Guardian,
    private readonly forms: Forms,
    private readonly nudges: Nudges,
    private readonly tables: StrokeTables,
    private readonly surveyor: Surveyor,
    private readonly pictures: Pictures,
    sheets: Sheets,
  ) {
    this.materials = new MaterialLoader(library, sheets);
  }

  /** Fills in the resources and the keys of a graph's nodes. */
  async resolve(graph: Graph, around: DrawnFor): Promise<void> {
    const loaded = await this.loadAll(graph, around);
    const frame = `${around.frame.width}x${around.frame.height}`;
    for (const node of graph.nodes) {
      const keys: Record<string, string> = {};
      const inputs = Object.fromEntries(Object.entries(node.inputs).map(([name, i]) => [name, graph.nodes[i].key]));
      for (const [name, need] of Object.entries(node.needs)) {
        const { key, resource } =
          need.need === 'survey' ? await this.surveyor.survey(graph, node.inputs.own, need, around) : (loaded.get(fingerprint(need)) as LoadedNeed);
        keys[name] = key;
        node.resources[name] = resource;
      }
      node.key = nodeKey(node, inputs, keys, frame);
    }
  }

  /** How many pixels of large sheets a graph reads with full detail: none where no material is seen larger than it is made without. */
  detailPixels({ nodes }: Graph, around: { frame: Size; scale: number }): number {
    const needs = nodes.flatMap((node) => Object.values(node.needs)).filter((need) => need.need === 'material');
    return needs.reduce((sum, need) => sum + this.materials.detailPixels(need, around), 0);
  }

  private async loadAll(graph: Graph, given: DrawnFor): Promise<Map<string, LoadedNeed>> {
    const around = { ...given, tables: MOST_OF_ONE_DRAWING };
    const needs = new Map<string, Need>();
    for (const node of graph.nodes) for (const need of Object.values(node.needs)) if (need.need !== 'survey') needs.set(fingerprint(need), need);
    const loaded = new Map<string, LoadedNeed>();
    const load = async ([print, need]: [string, Need]) => void loaded.set(print, await this.load(need, around));
    const all = [...needs];
    // Unless it is wanted at once, one material is made after another, and before the photo is loaded: each needs a good deal of working memory,
    // which the photo and the result then take over.
    if (!around.quick) {
      const left = all.filter(([, need]) => need.need === 'material');
      // Those that another drawing is making meanwhile come last, so that two drawings at a time share the work.
      const free = () => left.findIndex(([, need]) => need.need === 'material' && !this.materials.isComing(need, around));
      while (left.length > 0) await load(left.splice(Math.max(0, free()), 1)[0]);
    }
    await Promise.all(all.filter(([print]) => !loaded.has(print)).map(load));
    return loaded;
  }

  private async load(need: Need, around: DrawnFor & { tables: number }): Promise<LoadedNeed> {
    const { piece, quick } = around;
    switch (need.need) {
      case 'photo': {
        const key = need.file ?? piece.photo.key;
        if (need.deep) {
          const resource = await this.pictures.deepPhoto(key, need.spots);
          return { key: `deep:${key}:${spotsPrint(need.spots)}`, resource: { kind: 'picture', ...resource } };
        }
        return picture(`photo:${key}:${spotsPrint(need.spots)}`, await this.pictures.photo(key, need.spots));
      }
      case 'picture':
        return picture(`picture:${need.file}:${fingerprint(need.fitting)}`, await this.pictures.own(need.file, need.fitting));
      case 'grain': {
        const key = `${need.file}:${fingerprint(need.fitting)}`;
        return picture(`grain:${key}`, await this.library.grain(key, await this.pictures.own(need.file, need.fitting)));
      }
      case 'material':
        return this.materials.load(need, around, need.lay.faces ? largestOnFaces((await this.faces(around)).faces) : 1);
      case 'guard': {
        const of = need.file ? { photo: { ...piece.photo, key: need.file }, guards: guardsOfSubject(need.subject) ?? NO_CORRECTIONS } : piece;
        // A quick drawing does not wait for faces to be found: the fine one that follows it does.
        if (quick && !need.waits && this.guards.waits(of)) {
          void this.guards.find(of.photo).catch(() => undefined);
          return NOTHING;
        }
        const found = await this.guards.picture(need.plain ? { photo: of.photo } : of, need.amounts);
        return picture(`guard:${found.key}`, found.picture);
      }
      case 'cutout': {
        const cut = await this.guards.cutout(
          need.file ? { photo: { ...piece.photo, key: need.file }, guards: guardsOfSubject(need.subject) } : piece,
        );
        return picture(`cutout:${cut.key}:${need.part}`, cut[need.part]);
      }
      case 'contour': {
        if (quick && this.guards.waits(piece)) {
          void this.guards.find(piece.photo).catch(() => undefined);
          return NOTHING;
        }
        const drawn = await this.forms.contour(piece);
        return picture(`contour:${drawn.key}`, drawn.picture);
      }
      case 'nudge': {
        const unit = unitOf(around.frame);
        const { key, field } = await this.nudges.field(need.strokes, { width: around.frame.width / unit, height: around.frame.height / unit });
        return { key: `nudge:${key}`, resource: { kind: 'nudge', ...field } };
      }
      case 'faces': {
        const { key, faces } = await this.faces(around);
        return { key: `faces:${key}`, resource: { kind: 'faces', faces } };
      }
      case 'form': {
        if (quick && this.guards.waits(piece)) {
          void this.guards.find(piece.photo).catch(() => undefined);
          return { key: 'form:none', resource: { kind: 'form', fields: [] } };
        }
        const { key, fields } = await this.forms.fields(piece, need.framing);
        return { key: `form:${key}`, resource: { kind: 'form', fields } };
      }
      case 'strokes': {
        const tips = await this.loadTips(need.strokes);
        const unit = unitOf(around.frame);
        const inUnits = { width: around.frame.width / unit, height: around.frame.height / unit };
        // The last ones first: more than a drawing's share are sent to the workers as they are.
        const strokes = [...need.strokes].reverse().map((stroke) => (around.tables-- > 0 ? this.tables.tabled(stroke, inUnits) : stroke));
        strokes.reverse();
        return { key: `strokes:${fingerprint(need.strokes)}`, resource: { kind: 'strokes', strokes, tips } };
      }
      case 'survey':
        throw new Error('A survey is taken when the keys of what it measures are known.');
    }
  }

  private async faces({ piece, quick }: DrawnFor): Promise<{ key: string; faces: readonly FacePlace[] }> {
    if (!quick || !this.guards.waits(piece)) return this.forms.faces(piece, planReady(piece.photo, piece.ready).framing);
    void this.guards.find(piece.photo).catch(() => undefined);
    return { key: 'none', faces: [] };
  }

  /** The grain of the tips that are cut from materials, by key. */
  private async loadTips(strokes: readonly Stroke[]): Promise<Record<string, Picture>> {
    const tips: Record<string, Picture> = {};
    for (const { tip, material, marks } of strokes) {
      const key = tipKey({ material, marks });
      if (tip === 'cut' && material && !tips[key]) tips[key] = await this.loadTip(material, marks, key);
    }
    return tips;
  }

  private async loadTip({ id, seed, file }: NonNullable<Stroke['material']>, marks: Stroke['marks'], key: string): Promise<Picture> {
    const from = levelUpTo(file ? await this.pictures.photo(file) : await this.materials.tip({ id, seed }, TIP_SIDE), TIP_SIDE);
    return this.library.tip(key, { from, marks });
  }
}
