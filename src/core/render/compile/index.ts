import { pruned, type Graph } from '../../graph/node';
import { amountsOf } from '../../guards/schema';
import type { Size } from '../../image/motion';
import { filterCoats, findCoat, groupOf, innerCoats, isIsolated, levelOf, withInner } from '../../piece/groups';
import type { Coat, Piece } from '../../piece/schema';
import { planReady } from '../../ready/plan';
import type { View } from '../view';
import { GraphBuilder, type Surroundings } from './builder';
import { addTreatment, compileCoat, compileLayer, compileSource } from './coat';
import { compileMask } from './mask';

/** What of a piece is drawn. */
export type Drawable = Pick<Piece, 'coats' | 'strength' | 'ready' | 'guards'> & { photo: Size };

const takesPart = (coat: Coat) => coat.visible && coat.strength > 0;
/** Coats that take part, those in groups too. */
const shownCoats = (coats: readonly Coat[]): Coat[] => coats.filter(takesPart).flatMap((coat) => [coat, ...shownCoats(innerCoats(coat))]);

/** A coat where it lies: its backdrop, what its masks and limits see, and the coats that lie under it. */
interface Place {
  coat: Coat;
  below: number;
  seen?: number;
  under: readonly Coat[];
}

/**
 * Compiles a piece to a graph of pure nodes. Plain data and no loading: what has to be loaded stands in the nodes' needs.
 *
 * @param clear - Nothing beyond the photo's edges instead of the edges extended.
 * @param deep - The photo with 16 bits a channel where its file has them.
 */
export function compile(piece: Drawable, view: View = { kind: 'piece' }, clear = false, deep = false): Graph {
  return pruned(new Compiler(piece, clear, deep).root(view));
}

/** Coats up to one; the groups that it lies in are shown up to it too. */
function upTo(coats: readonly Coat[], id: string | null): Coat[] {
  const level = levelOf(coats, id);
  if (!level) return [];
  const outer = level.groups[0] ?? level.coats[level.at];
  const lower = coats.slice(0, coats.indexOf(outer));
  return [...lower, outer.id === id ? outer : withInner(outer, upTo(innerCoats(outer), id))];
}

class Compiler {
  private readonly builder: GraphBuilder;
  private readonly photo: number;
  private readonly frame: Size;

  constructor(
    private readonly piece: Drawable,
    clear: boolean,
    deep: boolean,
  ) {
    const { framing, treatments } = planReady(piece.photo, piece.ready);
    this.frame = { width: framing.width, height: framing.height };
    this.builder = new GraphBuilder({ ...framing, ...(clear ? { clear } : {}) });
    const spots = piece.ready?.spots;
    const file = { need: 'photo' as const, ...(spots && spots.length > 0 ? { spots } : {}), ...(deep ? { deep } : {}) };
    let photo = this.builder.framed(file, true);
    for (const params of treatments) {
      const node = addTreatment(this.builder, photo, params, { photo, below: photo, maskOf: () => photo, stack: (_coats, ground) => ground });
      const { needs } = this.builder.nodes[node];
      // A treatment that measures the file measures it without its spots.
      this.builder.nodes[node] = { ...this.builder.nodes[node], needs: 'file' in needs ? { ...needs, file } : needs };
      photo = node;
    }
    this.photo = photo;
  }

  root(view: View) {
    return this.builder.graph(this.compileView(view));
  }

  private compileView(view: View): number {
    const { piece, photo, builder } = this;
    if (view.kind === 'photo') return photo;
    if (view.kind === 'texture')
      return this.stack(piece.coats.filter(takesPart), builder.add('grey', {}, { inputs: { mask: builder.add('even', { value: 0.5 }) } }));
    const coat = 'coat' in view ? findCoat(piece, view.coat) : null;
    if (coat && view.kind === 'alone') return this.alone(coat);
    if (coat && view.kind === 'mask') return builder.add('grey', {}, { inputs: { mask: this.maskWithin(coat) } });
    if (coat && view.kind === 'layer') return this.layer(coat);
    if (coat && view.kind === 'onGround') return this.onGround(coat, view.colour);
    if (view.kind === 'guards' && view.bare) return this.regions(view.region);
    const result = this.result(this.coatsOf(view));
    if (view.kind === 'heat') return builder.add('heat', {}, { inputs: { result, photo } });
    if (view.kind === 'guards') return this.tinted(result, this.regions(view.region), view.colour, 0.65, false);
    // The colour lies where the coat is held back.
    if (coat && view.kind === 'maskOver') return this.tinted(result, this.maskWithin(coat), view.colour, 0.6, true);
    return result;
  }

  private tinted(result: number, mask: number, colour: [number, number, number], amount: number, inverted: boolean): number {
    return this.builder.add('tinted', { colour, amount, inverted }, { inputs: { result, mask } });
  }

  /** Coats that take part in a view, bottom to top. */
  private coatsOf(view: View): Coat[] {
    const { coats } = this.piece;
    const some = view.kind === 'without' ? filterCoats(coats, (c) => c.id !== view.coat) : view.kind === 'upTo' ? upTo(coats, view.coat) : coats;
    return some.filter(takesPart);
  }

  /**
   * The photo, or another ground, with coats on it.
   * @param seen - What masks and limits of all coats see, where that is not the coats' own backdrop.
   * @param under - Coats that lie under all of these.
   */
  private stack(coats: readonly Coat[], ground = this.photo, seen?: number, under: readonly Coat[] = []): number {
    return coats.filter(takesPart).reduce((below, coat, i, shown) => {
      const lower = [...under, ...shownCoats(shown.slice(0, i))];
      const around = this.surroundings({ coat, below, seen, under: lower });
      return compileCoat(
        this.builder,
        coat,
        { mask: compileMask(this.builder, coat, this.frame, around), guards: this.piece.guards, under: lower },
        around,
      );
    }, ground);
  }

  /** Where a coat lies. */
  private placeOf(coat: Coat): Place {
    let place: Place = { coat, below: this.photo, under: [] };
    const level = levelOf(this.piece.coats, coat.id);
    const path = [...(level?.groups ?? []), coat];
    let coats: readonly Coat[] = this.piece.coats;
    for (const one of path) {
      const lower = coats.slice(0, coats.indexOf(one)).filter(takesPart);
      const below = this.stack(lower, place.below, place.seen, place.under);
      place = { coat: one, below, seen: place.seen, under: [...place.under, ...shownCoats(lower)] };
      if (one === coat) break;
      if (isIsolated(one)) place = { ...place, below: this.builder.add('clear', {}), seen: place.seen ?? below };
      coats = innerCoats(one);
    }
    return place;
  }

  private result(coats: readonly Coat[]): number {
    const { strength } = this.piece;
    const result = this.stack(coats);
    if (strength >= 1 || coats.length === 0) return result;
    return this.builder.add('mix', { strength }, { inputs: { result, photo: this.photo } });
  }

  /** What a coat's operations may read. `asked` are the coats whose masks are being compiled: one that leads back to itself is nothing. */
  private surroundings({ coat, below, seen, under }: Place, asked: readonly string[] = [coat.id]): Surroundings {
    const { photo, piece, builder, frame } = this;
    return {
      photo,
      below,
      seen,
      stack: (coats, ground, over) => this.stack(coats, ground, over === ground ? undefined : over, under),
      maskOf: (id) => {
        const other = findCoat(piece, id);
        if (!other || asked.includes(id)) return builder.add('even', { value: 0 });
        // Another coat's mask that looks at its backdrop looks at the photo here: that backdrop may hold this coat.
        const around = this.surroundings({ coat: other, below: photo, under: [] }, [...asked, id]);
        return compileMask(builder, other, frame, around) ?? builder.add('even', { value: 1 });
      },
    };
  }

  /** What a coat starts from, with its steps, on grey. A group is shown without the picture below it. */
  private alone(coat: Coat): number {
    const own = groupOf(coat) ? { ...coat, source: { ...coat.source, isolated: true } } : coat;
    const around = this.surroundings({ coat, below: this.photo, under: [] });
    return this.builder.add('onGrey', {}, { inputs: { source: compileSource(this.builder, own, around) } });
  }

  /** One coat alone on a transparent background. Its mask and limits read the coats below it, as in the piece. */
  private layer(coat: Coat): number {
    const place = this.placeOf(coat);
    const around = this.surroundings(place);
    const parts = { mask: compileMask(this.builder, coat, this.frame, around), guards: this.piece.guards, under: place.under };
    return compileLayer(this.builder, coat, parts, around);
  }

  /** A coat without guards or limits, opaque, over a plain colour. */
  private onGround(coat: Coat, colour: [number, number, number]): number {
    const { below, seen = below } = this.placeOf(coat);
    const ground = this.tinted(seen, this.builder.add('even', { value: 1 }), colour, 0.85, false);
    const around = this.surroundings({ coat, below: ground, under: [] });
    const plain: Coat = { ...coat, blend: 'normal', strength: 1, limits: [0, 0, 1, 1], guards: 0 };
    return compileCoat(this.builder, plain, { mask: compileMask(this.builder, coat, this.frame, around), guards: undefined, under: [] }, around);
  }

  /** Only a coat's mask, with the coat's true backdrop. */
  private maskWithin(coat: Coat): number {
    return compileMask(this.builder, coat, this.frame, this.surroundings(this.placeOf(coat))) ?? this.builder.add('even', { value: 1 });
  }

  private regions(region: (View & { kind: 'guards' })['region']): number {
    const amounts = region ? { [region]: 1 } : amountsOf(this.piece.guards ?? { regions: {} }, undefined);
    return this.builder.framed({ need: 'guard', amounts, waits: true });
  }
}
