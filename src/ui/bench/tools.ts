import { markSchema, strokeSchema, type Mark, type Stroke } from '@/core/strokes/schema';
import { addStroke, type Edit } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { HeldEdit } from '@/store/editing';
import { addMark, marksOf } from '@/core/piece/marks';
import { brushInHand, isMarking, useMarking } from '@/store/brush';
import type { Tool } from './gestures';
import { pointOf, rounded, thinned } from './strokePoints';
import { words } from '../words';

const held = new HeldEdit();

/** Adds the stroke to the marks of the chosen coat, or to its mask. */
const edit = (chosen: string, stroke: Stroke): Edit => (isMarking(useBench.getState()) ? addMark(chosen, stroke as Mark) : addStroke(chosen, stroke));

/** A stroke of the brush in hand: a mark has no colour of its own where that is its coat's. */
function begun(points: Stroke['points']): Stroke {
  const { set: _set, smooth: _smooth, straight: _straight, colour, ...brush } = brushInHand().getState();
  const seed = Math.floor(Math.random() * 1e6);
  const bench = useBench.getState();
  if (!isMarking(bench)) return strokeSchema.parse({ ...brush, seed, points });
  const own = colour === marksOf(chosenCoat(bench))?.colour ? {} : { colour };
  return markSchema.parse({ ...brush, ...own, seed, points });
}

/** Paints on the mask of the chosen coat, or on the coat where that is made of marks. */
export const brushTool: Tool & { stroke: Stroke | null } = {
  stroke: null,
  down(point) {
    const { chosen } = useBench.getState();
    if (!chosen) return;
    const { lineFrom } = useMarking.getState();
    const points: Stroke['points'] = [pointOf(point)];
    if ((brushInHand().getState().straight || point.shift) && lineFrom?.[0] === chosen) points.unshift([lineFrom[1], lineFrom[2], 1]);
    this.stroke = begun(points);
    lag = points[points.length - 1];
    this.move([]);
  },
  move(points) {
    const { chosen } = useBench.getState();
    if (!this.stroke || !chosen) return;
    if (brushInHand().getState().straight && points.length > 0) {
      // While the line is held its end follows; it is laid where the finger lifts.
      const start = this.stroke.points[0];
      this.stroke = { ...this.stroke, points: [start, pointOf(points[points.length - 1])] };
    } else if (points.length > 0)
      this.stroke = { ...this.stroke, points: thinned(this.stroke.points, points.map(pointOf).map(smoothed), this.stroke.size) };
    held.show(edit(chosen, this.stroke));
  },
  up(point) {
    const { chosen } = useBench.getState();
    if (!this.stroke || !chosen) return;
    // A tip that lags arrives where the finger lifts.
    if (brushInHand().getState().smooth > 0) {
      this.stroke = { ...this.stroke, points: thinned(this.stroke.points, [pointOf(point)], this.stroke.size) };
      held.show(edit(chosen, this.stroke));
    }
    const put = isMarking(useBench.getState()) ? words.tools.paintAMark : words.common.restore;
    held.keep({ take: words.common.erase, put, level: words.tools.setTheMask }[this.stroke.does]);
    useMarking.setState({ lineFrom: [chosen, point.x, point.y] });
    this.stroke = null;
  },
  cancel() {
    this.stroke = null;
    held.drop();
  },
};

type StrokePoint = Stroke['points'][number];
/** Where a lagging tip is. */
let lag: StrokePoint = [0, 0, 1];

/** The tip drawn after the pointer by a part of the way. */
function smoothed(p: StrokePoint): StrokePoint {
  const k = 1 - 0.92 * brushInHand().getState().smooth;
  lag = [rounded(lag[0] + (p[0] - lag[0]) * k), rounded(lag[1] + (p[1] - lag[1]) * k), p[2]];
  return lag;
}
