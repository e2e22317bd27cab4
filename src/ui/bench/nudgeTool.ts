import { addNudge } from '@/core/piece/nudges';
import { changeCoat, type Edit } from '@/core/piece/edits';
import { nudgeStrokeSchema, nudges, type NudgeStroke } from '@/core/nudge/schema';
import { useBench } from '@/store/bench';
import { useNudgeBrush } from '@/store/brush';
import { HeldEdit } from '@/store/editing';
import { useNudging } from '@/store/nudging';
import type { Tool } from './gestures';
import { pointOf, thinned } from './strokePoints';

const held = new HeldEdit();

/** The edit as it is shown while the stroke is held: with the photo seen through. */
const shown =
  (coat: string, edit: Edit): Edit =>
  (piece) =>
    changeCoat(coat, ({ strength }) => ({ strength: strength * useNudging.getState().through }))(edit(piece));

/** Moves the texture of the chosen coat by hand. */
export const nudgeTool: Tool & { stroke: NudgeStroke | null } = {
  stroke: null,
  down(point) {
    const { does, isReversed } = useNudging.getState();
    const { size, strength } = useNudgeBrush.getState();
    const turn = does === 'turn' && isReversed ? -1 : 1;
    this.stroke = nudgeStrokeSchema.parse({ does, size, strength: strength * turn, points: [pointOf(point)] });
    this.move([]);
  },
  move(points) {
    const { chosen } = useBench.getState();
    if (!this.stroke || !chosen) return;
    this.stroke = { ...this.stroke, points: thinned(this.stroke.points, points.map(pointOf), this.stroke.size) };
    const edit = addNudge(chosen, this.stroke);
    held.show(shown(chosen, edit), edit);
  },
  up() {
    held.keep(nudges.find(({ value }) => value === this.stroke?.does)?.label ?? '');
    this.stroke = null;
  },
  cancel() {
    this.stroke = null;
    held.drop();
  },
};
