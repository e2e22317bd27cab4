import { regionStrokeSchema, type RegionStroke } from '@/core/strokes/schema';
import { chosenCoat, useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { onCutPicture, setSubject, useCutting } from '@/store/cutting';
import { HeldEdit } from '@/store/editing';
import type { Tool, ToolPoint } from './gestures';
import { words } from '../words';

const MOST_OF_PATH = 5000;
const held = new HeldEdit();

/** Points of the stroke under way, in fractions of the picture that is cut out. */
let points: [number, number, number][] = [];
let tip: RegionStroke | null = null;

function add(list: ToolPoint[]): void {
  const { piece } = useBench.getState();
  const coat = chosenCoat(useBench.getState());
  if (!piece || !coat) return;
  const { point } = onCutPicture(piece, coat);
  for (const p of list) {
    const [x, y] = point([p.x, p.y]);
    const last = points[points.length - 1];
    const isFar = !last || Math.hypot(x - last[0], y - last[1]) > 0.001;
    if (isFar && points.length < MOST_OF_PATH) points.push([x, y, 1]);
  }
}

function edit() {
  const { piece } = useBench.getState();
  const coat = chosenCoat(useBench.getState());
  if (!piece || !coat || points.length === 0) return null;
  const { does } = useCutting.getState();
  const size = Math.min(1000, Math.max(1, onCutPicture(piece, coat).length(useBrush.getState().size)));
  const path = points.map(([x, y]): [number, number] => [x, y]);
  if (does === 'keep' || does === 'leave')
    return setSubject(coat.id, (subject) => ({ ...subject, hints: [...subject.hints, { keep: does === 'keep', points: path }] }));
  if (does === 'hair') return setSubject(coat.id, (subject) => ({ ...subject, hairs: [...subject.hairs, { size, points: path }] }));
  tip ??= regionStrokeSchema.parse({ does, size, hardness: 0.5, strength: 1, flow: 1, snap: true, points: points.slice(0, 1) });
  const stroke = { ...tip, points: [...points] };
  return setSubject(coat.id, (subject) => ({ ...subject, strokes: [...subject.strokes, stroke] }));
}

/** Corrects the subject of another picture that is cut out. Its edge is worked out when the finger lifts: all of that picture goes through it. */
export const cutTool: Tool = {
  down(point) {
    points = [];
    tip = null;
    add([point]);
  },
  move: add,
  up() {
    const change = edit();
    if (change) held.show(change);
    held.keep(words.cut.correct);
    points = [];
  },
  cancel() {
    points = [];
    held.drop();
  },
};

/** The line that says what a stroke on a cut-out will do. */
export const cutSentence = (): string => words.cut.sentence[useCutting.getState().does];
