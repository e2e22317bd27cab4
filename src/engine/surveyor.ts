import { fingerprint } from '../core/graph/key';
import type { LoadedSurvey } from '../core/graph/needs';
import { pruned, type Graph } from '../core/graph/node';
import type { Size } from '../core/image/motion';
import { SURVEY_SIDE, surveyBytes, surveyScratch, type Survey, type SurveyOrder } from '../core/measure/survey';
import type { Plan } from '../core/render/plan';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';
import { unitOf } from '../core/image/unit';

/** Most surveys kept: those of every treatment on the bench and of some states before. */
const MOST = 24;
/** Side of the tiles that the small drawing is made in. */
const TILE = 64;

/**
 * Measures of a whole picture that treatments ask for. Each is taken on a small drawing of the node that the treatment starts from, and kept by that
 * node's key.
 */
export class Surveyor {
  private readonly held: MemoryCache<Survey>;

  constructor(
    private readonly pool: Pool,
    /** Draws a plan, from kept tiles or without them, and returns a copy of its pixels. */
    private readonly draw: (plan: Plan, keeps: boolean) => Promise<Uint8Array<ArrayBuffer>>,
  ) {
    this.held = new MemoryCache(pool.heap, { max: MOST });
  }

  clear(): void {
    this.held.clear();
  }

  /**
   * Measures a node of a graph whose key is known.
   *
   * @param quick - From kept tiles, whose rounding to 16 bits depends on what was drawn before. Otherwise a survey is the same to the byte everywhere.
   */
  async survey(
    graph: Graph,
    node: number,
    { radius, eps, palette }: SurveyOrder,
    { frame, quick }: { frame: Size; quick: boolean },
  ): Promise<{ key: string; resource: LoadedSurvey }> {
    const order = { radius, eps, palette };
    const key = `survey:${graph.nodes[node].key}:${fingerprint(order)}:${quick ? 'quick' : 'exact'}`;
    const survey = this.held.get(key) ?? (await this.take(key, onGrey(graph, node), order, frame, quick));
    return { key, resource: { kind: 'survey', survey } };
  }

  private async take(key: string, graph: Graph, order: SurveyOrder, frame: Size, quick: boolean): Promise<Survey> {
    const scale = Math.min(1, SURVEY_SIDE / Math.max(frame.width, frame.height));
    const width = Math.max(1, Math.round(frame.width * scale));
    const height = Math.max(1, Math.round(frame.height * scale));
    const pixels = await this.draw({ graph, frame, scale, region: { x: 0, y: 0, width, height }, tile: TILE }, quick);
    const { heap } = this.pool;
    const bytes = surveyBytes(width, height);
    const at = heap.take(bytes);
    const work = heap.take(width * height * 4 + 128 + surveyScratch(width, height));
    try {
      this.pool.write(work, pixels);
      const scratch = work + Math.ceil((width * height * 4) / 128) * 128;
      const unit = unitOf(frame, scale);
      const survey = await this.pool.everywhere<Survey>({ call: 'survey', pixels: work, width, height, unit, order, target: at, scratch });
      return this.held.put(key, at, bytes, survey);
    } catch (error) {
      heap.give(at);
      throw error;
    } finally {
      heap.give(work);
    }
  }
}

/** A node of a graph by itself, on grey where it does not cover. */
function onGrey({ nodes }: Graph, source: number): Graph {
  const root = { op: 'onGrey', params: {}, inputs: { source }, needs: {}, resources: {}, key: -1 };
  return pruned({ nodes: [...nodes.slice(0, source + 1), root], root: source + 1 });
}
