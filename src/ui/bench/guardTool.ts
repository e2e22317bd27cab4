import { regions } from '@/core/guards/schema';
import { regionStrokeSchema, type RegionStroke } from '@/core/strokes/schema';
import { useBench } from '@/store/bench';
import { HeldEdit } from '@/store/editing';
import { useBrush } from '@/store/brush';
import { addHair, addHint, addKept, addRegionStroke, lengthOnFile, onFile, useGuards } from '@/store/guards';
import type { Tool, ToolPoint } from './gestures';
import { words } from '../words';

/** Most points that the schemas of guards and of strokes allow. */
const MOST_OF_PATH = 5000;
const MOST_OF_STROKE = 20_000;

const held = new HeldEdit();

/** Points of the stroke under way, in fractions of the file; a point that has been made stays the same object, by which the engine knows the stroke. */
let points: [number, number, number][] = [];
let tip: RegionStroke | null = null;

const edit = () => {
  const { piece } = useBench.getState();
  const { region, does, snap } = useGuards.getState();
  if (!piece || !region || points.length === 0) return null;
  const size = lengthOnFile(piece, useBrush.getState().size);
  const path = () => points.slice(0, MOST_OF_PATH).map(([x, y]): [number, number] => [x, y]);
  if (does === 'keep' || does === 'leave') return addHint({ keep: does === 'keep', points: path() });
  if (does === 'grow' || does === 'spare') return addKept({ keep: does === 'grow', size, points: path() });
  if (does === 'hair') return addHair({ size, points: path() });
  tip ??= regionStrokeSchema.parse({ does, size, hardness: 0.5, strength: 1, flow: 1, snap, points: points.slice(0, 1) });
  return addRegionStroke(region, { ...tip, points: points.slice(0, MOST_OF_STROKE) });
};

const add = (list: ToolPoint[]) => {
  const { piece } = useBench.getState();
  if (!piece) return;
  for (const p of list) {
    const next = onFile(piece, p.x, p.y);
    const last = points[points.length - 1];
    if (!last || Math.hypot(next[0] - last[0], next[1] - last[1]) > 0.001) points.push([...next, 1]);
  }
};

const show = () => {
  const change = edit();
  // Strokes on the subject are worked out when the finger lifts: all of the photo goes through them.
  if (change && !isHint()) held.show(change);
};
const isHint = () => ['keep', 'leave', 'hair', 'grow', 'spare'].includes(useGuards.getState().does);

const stepOf = () => {
  const { does } = useGuards.getState();
  if (does === 'hair') return words.guard.refineAlongHair;
  if (does === 'grow' || does === 'spare') return does === 'grow' ? words.guard.keepThis : words.guard.leaveThis;
  return isHint() ? words.guard.markTheSubject : words.guard.paintOnAGuard;
};

/** Paints on the chosen guard, or tells the subject by strokes. */
export const guardTool: Tool = {
  down(point) {
    points = [];
    tip = null;
    useGuards.getState().set({ painting: true });
    add([point]);
    show();
  },
  move(list) {
    add(list);
    show();
  },
  up() {
    const change = edit();
    if (change) held.show(change);
    held.keep(stepOf());
    points = [];
    useGuards.getState().set({ painting: false });
  },
  cancel() {
    points = [];
    useGuards.getState().set({ painting: false });
    held.drop();
  },
};

/** The line that says what a stroke on a guard will do. */
export function guardSentence(): string | null {
  const { region, does } = useGuards.getState();
  const label = regions.find((r) => r.id === region)?.label;
  if (!label) return null;
  const name = label.toLowerCase();
  return {
    put: words.guard.addingTo(name),
    take: words.guard.erasingFrom(name),
    keep: words.guard.markingTheSubject,
    leave: words.guard.markingTheBackground,
    hair: words.guard.refiningEdgesAlongHair,
    grow: words.guard.tapWhatIsToBeKept,
    spare: words.guard.tapWhatIsToBeLeft,
  }[does];
}
