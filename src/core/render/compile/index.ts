import { pruned, type Graph } from '../../graph/node';
import { amountsOf } from '../../guards/schema';
import type { Size } from '../../image/motion';
import type { Coat, Piece } from '../../piece/schema';
import { planReady } from '../../ready/plan';
import type { View } from '../view';
import { GraphBuilder, type Surroundings } from './builder';
import { addTreatment, compileCoat, compileLayer, compileSource } from './coat';
import { compileMask } from './mask';

/** What of a piece is drawn. */
export type Drawable = Pick<Piece, 'coats' | 'strength' | 'ready' | 'guards'> & { photo: Size };

const takesPart = (coat: Coat) => coat.visible && coat.strength > 0;

/**
 * Compiles a piece to a graph of pure nodes. Plain data and no loading: what has to be loaded stands in the nodes' needs.
 *
 * @param clear - Nothing beyond the photo's edges instead of the edges extended.
 * @param deep - The photo with 16 bits a channel where its file has them.
 */
export function compile(piece: Drawable, view: View = { kind: 'piece' }, clear = false, deep = false): Graph {
  return pruned(new Compiler(piece, clear, deep).root(view));
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
      const node = addTreatment(this.builder, photo, params, { photo, below: photo, maskOf: () => photo });
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
    if (view.kind === 'alone' || view.kind === 'mask') {
      const coat = piece.coats.find((c) => c.id === view.coat);
      if (coat) return view.kind === 'mask' ? builder.add('grey', {}, { inputs: { mask: this.maskWithin(coat) } }) : this.alone(coat);
    }
    if (view.kind === 'layer') {
      const coat = piece.coats.find((c) => c.id === view.coat);
      if (coat) return this.layer(coat);
    }
    if (view.kind === 'onGround') {
      const coat = piece.coats.find((c) => c.id === view.coat);
      if (coat) return this.onGround(coat, view.colour);
    }
    if (view.kind === 'guards' && view.bare) return this.regions(view.region);
    const result = this.result(this.coatsOf(view));
    if (view.kind === 'heat') return builder.add('heat', {}, { inputs: { result, photo } });
    if (view.kind === 'guards') return this.tinted(result, this.regions(view.region), view.colour, 0.65, false);
    if (view.kind === 'maskOver') {
      const coat = piece.coats.find((c) => c.id === view.coat);
      // The colour lies where the coat is held back.
      if (coat) return this.tinted(result, this.maskWithin(coat), view.colour, 0.6, true);
    }
    return result;
  }

  private tinted(result: number, mask: number, colour: [number, number, number], amount: number, inverted: boolean): number {
    return this.builder.add('tinted', { colour, amount, inverted }, { inputs: { result, mask } });
  }

  /** Coats that take part in a view, bottom to top. */
  private coatsOf(view: View): Coat[] {
    const { coats } = this.piece;
    const some =
      view.kind === 'without'
        ? coats.filter((c) => c.id !== view.coat)
        : view.kind === 'upTo'
          ? coats.slice(0, view.coat === null ? 0 : coats.findIndex((c) => c.id === view.coat) + 1)
          : coats;
    return some.filter(takesPart);
  }

  /** The photo, or another ground, with coats on it. */
  private stack(coats: readonly Coat[], ground = this.photo): number {
    return coats.reduce((below, coat, i) => {
      const around = this.surroundings(below, [coat.id]);
      return compileCoat(
        this.builder,
        coat,
        { mask: compileMask(this.builder, coat, this.frame, around), guards: this.piece.guards, under: coats.slice(0, i) },
        around,
      );
    }, ground);
  }

  private result(coats: readonly Coat[]): number {
    const { strength } = this.piece;
    const result = this.stack(coats);
    if (strength >= 1 || coats.length === 0) return result;
    return this.builder.add('mix', { strength }, { inputs: { result, photo: this.photo } });
  }

  /** What a coat's operations may read. `asked` are the coats whose masks are being compiled: one that leads back to itself is nothing. */
  private surroundings(below: number, asked: readonly string[]): Surroundings {
    const { photo, piece, builder, frame } = this;
    return {
      photo,
      below,
      maskOf: (id) => {
        const coat = piece.coats.find((c) => c.id === id);
        if (!coat || asked.includes(id)) return builder.add('even', { value: 0 });
        // Another coat's mask that looks at its backdrop looks at the photo here: that backdrop may hold this coat.
        const around = this.surroundings(photo, [...asked, id]);
        return compileMask(builder, coat, frame, around) ?? builder.add('even', { value: 1 });
      },
    };
  }

  private alone(coat: Coat): number {
    return this.builder.add('onGrey', {}, { inputs: { source: compileSource(this.builder, coat, this.surroundings(this.photo, [coat.id])) } });
  }

  /** One coat alone on a transparent background. Its mask and limits read the coats below it, as in the piece. */
  private layer(coat: Coat): number {
    const { coats, guards } = this.piece;
    const under = coats.slice(0, coats.indexOf(coat)).filter(takesPart);
    const around = this.surroundings(this.stack(under), [coat.id]);
    return compileLayer(this.builder, coat, { mask: compileMask(this.builder, coat, this.frame, around), guards, under }, around);
  }

  /** A coat without guards or limits, opaque, over a plain colour. */
  private onGround(coat: Coat, colour: [number, number, number]): number {
    const { coats } = this.piece;
    const below = this.stack(coats.slice(0, coats.indexOf(coat)).filter(takesPart));
    const ground = this.tinted(below, this.builder.add('even', { value: 1 }), colour, 0.85, false);
    const around = this.surroundings(ground, [coat.id]);
    const plain: Coat = { ...coat, blend: 'normal', strength: 1, limits: [0, 0, 1, 1], guards: 0 };
    return compileCoat(this.builder, plain, { mask: compileMask(this.builder, coat, this.frame, around), guards: undefined, under: [] }, around);
  }

  /** Only a coat's mask, with the coat's true backdrop. */
  private maskWithin(coat: Coat): number {
    const { coats } = this.piece;
    const below = this.stack(coats.slice(0, coats.indexOf(coat)).filter(takesPart));
    return compileMask(this.builder, coat, this.frame, this.surroundings(below, [coat.id])) ?? this.builder.add('even', { value: 1 });
  }

  private regions(region: (View & { kind: 'guards' })['region']): number {
    const amounts = region ? { [region]: 1 } : amountsOf(this.piece.guards ?? { regions: {} }, undefined);
    return this.builder.framed({ need: 'guard', amounts, waits: true });
  }
}
