import { readsBelow } from '../core/render/source';
import type { PlannedReady } from '../core/ready/photo';
import type { Plan, PlannedCoat } from '../core/render/plan';
import { SURVEY_SIDE, surveyBytes, surveyScratch, type Survey, type SurveyOrder } from '../core/render/survey';
import { treatmentByKind } from '../core/treatments';
import type { Pool } from './pool';

interface Held {
  at: number;
  survey: Survey;
  used: number;
}

type Params = Record<string, unknown>;

/** Most surveys kept: those of every treatment on the bench and of some states before. */
const KEPT = 24;

/**
 * Measures of a whole picture that treatments ask for (see `Treatment.survey`): each is taken on a small drawing of what the treatment starts
 * from, and kept as long as that stays the same.
 */
export class Surveys {
  private held = new Map<string, Held>();
  private clock = 0;

  constructor(
    private readonly pool: Pool,
    /** A number that stays the same as long as an object does. */
    private readonly identify: (part: object) => number,
    /** Where a drawing of so many bytes goes. */
    private readonly room: (bytes: number) => number,
    /** Adds what is kept of a drawing of the readied photo. */
    private readonly kept: (plan: Plan) => Plan,
  ) {}

  clear(): void {
    for (const { at } of this.held.values()) this.pool.heap.give(at);
    this.held.clear();
  }

  /** The plan with a survey on every treatment that asks for one. `parts` are the piece's own objects, by which a state is known. */
  async complete(plan: Plan, parts: { coats: readonly { treatments: readonly object[] }[] }): Promise<Plan> {
    const ready = plan.ready && (await this.ready(plan, plan.ready));
    let whole = { ...plan, ready };
    for (const [i, coat] of plan.coats.entries()) {
      if (!coat.treatments.some((t) => asks(t))) continue;
      const treatments: Params[] = [];
      for (const [k, params] of coat.treatments.entries()) {
        if (!asks(params)) {
          treatments.push(params);
          continue;
        }
        const bare = { ...coat, treatments, visible: true, strength: 1, blend: 'normal', limits: [0, 0, 1, 1], mask: { start: 'all', parts: [] } };
        const below = readsBelow(bare as unknown as PlannedCoat);
        const coats = [...(below ? whole.coats.slice(0, i) : []), bare as unknown as PlannedCoat];
        const view: Plan['view'] = below ? { kind: 'piece' } : { kind: 'alone', coat: coat.id };
        const known = below ? parts.coats.slice(0, i).map((c) => this.identify(c)) : [];
        const own = [coat.source, coat.lay, ...parts.coats[i].treatments.slice(0, k)].map((part) => this.identify(part as object));
        const key = `${readyKey(plan, ready)}|${known.join()}|${own.join()}|${coat.picture?.levels[0] ?? ''}`;
        treatments.push({ ...params, survey: await this.take(key, { ...whole, coats, view, strength: 1 }, orderOf(params)) });
      }
      const coats = whole.coats.map((c, n) => (n === i ? ({ ...c, treatments } as PlannedCoat) : c));
      whole = { ...whole, coats };
    }
    return whole;
  }

  private async ready(plan: Plan, ready: PlannedReady): Promise<PlannedReady> {
    const treatments: Params[] = [];
    for (const params of ready.treatments) {
      if (!asks(params)) {
        treatments.push(params);
        continue;
      }
      const before = { ...ready, treatments: [...treatments], clear: false };
      const survey = await this.take(
        readyKey(plan, before),
        { ...plan, ready: before, coats: [], view: { kind: 'photo' }, strength: 1 },
        orderOf(params),
      );
      treatments.push({ ...params, survey });
    }
    return { ...ready, treatments };
  }

  private async take(state: string, plan: Plan, order: SurveyOrder): Promise<Survey> {
    const key = `${state}|${JSON.stringify(order)}`;
    const there = this.held.get(key);
    if (there) {
      there.used = ++this.clock;
      return there.survey;
    }
    const size = plan.ready ?? plan.photo;
    const scale = Math.min(1, SURVEY_SIDE / Math.max(size.width, size.height));
    const width = Math.max(1, Math.round(size.width * scale));
    const height = Math.max(1, Math.round(size.height * scale));
    const small = this.kept({
      ...plan,
      below: undefined,
      treated: undefined,
      readied: undefined,
      clipping: false,
      scale,
      region: { x: 0, y: 0, width, height },
      tile: 64,
    });
    const bytes = await this.pool.draw(
      small,
      () => this.room(width * height * 4),
      (pixels) => pixels.slice(),
    );
    const { heap } = this.pool;
    const at = heap.take(surveyBytes(width, height));
    const work = heap.take(width * height * 4 + 128 + surveyScratch(width, height));
    try {
      this.pool.write(work, bytes);
      const scratch = work + Math.ceil((width * height * 4) / 128) * 128;
      const unit = (Math.max(size.width, size.height) * scale) / 2000;
      const survey = await this.pool.everywhere<Survey>({ call: 'survey', pixels: work, width, height, unit, order, target: at, scratch });
      this.forget();
      this.held.set(key, { at, survey, used: ++this.clock });
      return survey;
    } catch (error) {
      heap.give(at);
      throw error;
    } finally {
      heap.give(work);
    }
  }

  private forget(): void {
    const oldest = [...this.held.entries()].sort((a, b) => a[1].used - b[1].used).slice(0, Math.max(0, this.held.size - KEPT + 1));
    for (const [key, { at }] of oldest) {
      this.held.delete(key);
      this.pool.heap.give(at);
    }
  }
}

const asks = (params: Params): boolean => {
  const treatment = treatmentByKind(params.kind as string);
  return treatment.survey !== undefined && !treatment.neutral(params);
};

const orderOf = (params: Params): SurveyOrder => {
  const { survey } = treatmentByKind(params.kind as string);
  return (survey as NonNullable<typeof survey>)(params);
};

/** All that the readied photo depends on. Surveys on earlier treatments follow from them, so their addresses are left out. */
const readyKey = (plan: Plan, ready: PlannedReady | undefined): string =>
  JSON.stringify([plan.photo.levels[0], ready], (key, value: unknown) => (key === 'survey' ? undefined : value));
