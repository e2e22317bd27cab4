import * as z from 'zod';
import { balanceFields } from '@/core/treatments/balance';
import { hueFields, hueOf } from '@/core/treatments/hues';
import { turnByLine } from '@/core/ready/editing';
import { withTurn } from '@/core/ready/frame';
import { toFile } from '@/core/ready/geometry';
import { bendByLine, lensSchema } from '@/core/ready/lens';
import type { Line } from '@/core/ready/level';
import type { Point } from '@/core/image/projection';
import { uprightCorners, withCorners } from '@/core/ready/perspective';
import type { Ready } from '@/core/ready/schema';
import { useBench, type FacetId } from '@/store/bench';
import { complain, say } from '@/store/notices';
import { addSpot, changeReady, readyOf, useReady, type ReadyTool } from '@/store/ready';
import type { Tool, ToolPoint } from './gestures';
import { useViewport } from './viewport';
import { unitOf } from '@/core/image/unit';
import { words } from '../words';

let start: ToolPoint | null = null;
const put = (line: [number, number, number, number] | null) => useReady.getState().set({ line });

/** A line along something level or upright, that turns the frame. */
export const lineTool: Tool = {
  down: (point) => (start = point),
  move(points) {
    const last = points[points.length - 1];
    if (start && last) put([start.px, start.py, last.px, last.py]);
  },
  up(point) {
    put(null);
    const { piece, change } = useBench.getState();
    if (!start || !piece || Math.hypot(point.px - start.px, point.py - start.py) < 12) return;
    // The view shows the photo turned as the frame is, so that the line tells what is missing.
    const { width, height } = useViewport.getState().photo;
    const pixels = (p: ToolPoint): Point => [p.x * width, p.y * height];
    const turn = turnByLine(readyOf(piece).crop.turn, pixels(start), pixels(point));
    change(
      words.ready.straightenByALine,
      changeReady((r) => withTurn(piece.photo, r, turn)),
    );
    say(words.ready.turnedTo(turn.toFixed(1)));
    useReady.getState().set({ tool: 'frame' });
    start = null;
  },
  cancel() {
    start = null;
    put(null);
  },
};

/** Two lines along things that are upright in life, one after the other. */
export const uprightsTool: Tool = {
  down: (point) => (start = point),
  move: lineTool.move,
  up(point) {
    put(null);
    const { piece, change } = useBench.getState();
    const { first, set } = useReady.getState();
    const from = start;
    start = null;
    if (!from || !piece || Math.hypot(point.px - from.px, point.py - from.py) < 12) return;
    const line: Line = [
      [from.x, from.y],
      [point.x, point.y],
    ];
    if (!first) return set({ first: { view: [from.px, from.py, point.px, point.py], photo: line } });
    set({ first: null });
    try {
      const corners = uprightCorners(first.photo, line);
      change(
        words.ready.perspectiveByTwoLines,
        changeReady((r) => withCorners(piece.photo, r, corners)),
      );
      set({ tool: 'frame' });
    } catch (error) {
      complain(error);
    }
  },
  cancel: lineTool.cancel,
};

/** A tap on something that should be grey. */
export const neutralTool: Tool = {
  down: () => undefined,
  move: () => undefined,
  up(point) {
    const neutral: Point = [Math.min(1, Math.max(0, point.x)), Math.min(1, Math.max(0, point.y))];
    useBench.getState().change(
      words.common.pickNeutral,
      changeReady((r) => ({ ...r, whiteBalance: { ...balanceSchema.parse({ ...r.whiteBalance }), neutral } }) as Ready),
    );
    useReady.getState().set({ tool: 'frame' });
  },
  cancel: () => undefined,
};

const balanceSchema = z.object(balanceFields);

/** Freehand points of a stroke, in the view and in fractions of the readied photo. */
let drawn: ToolPoint[] = [];
const show = () => useReady.getState().set({ stroke: drawn.length > 0 ? drawn.map((p) => [p.px, p.py]) : null });
const freehand = (done: (points: ToolPoint[]) => void): Tool => ({
  down(point) {
    drawn = [point];
    show();
  },
  move(points) {
    if (drawn.length === 0) return;
    for (const p of points) {
      const last = drawn[drawn.length - 1];
      if (Math.hypot(p.px - last.px, p.py - last.py) >= 2) drawn.push(p);
    }
    show();
  },
  up() {
    const points = drawn;
    drawn = [];
    show();
    if (points.length > 0) done(points);
  },
  cancel() {
    drawn = [];
    show();
  },
});

const inFile = (points: ToolPoint[]): Point[] => {
  const { piece } = useBench.getState();
  return piece ? points.map((p) => toFile(piece.photo, readyOf(piece), [p.x, p.y])) : [];
};

/** A stroke along something that is straight in life: the lens is bent until it is. */
export const bendTool: Tool = freehand((points) => {
  const { piece, change } = useBench.getState();
  if (!piece) return;
  try {
    const lens = lensSchema.parse(readyOf(piece).lens ?? {});
    const k1 = bendByLine(piece.photo, lens, inFile(points));
    change(
      words.ready.distortionByALine,
      changeReady((r) => ({ ...r, lens: { ...lens, k1 } })),
    );
    say(words.ready.distortionSetTo(k1.toFixed(3)));
    useReady.getState().set({ tool: 'frame' });
  } catch (error) {
    complain(error);
  }
});

const rounded = (v: number) => Math.round(v * 1e5) / 1e5;

/** A tap or a stroke over something that is to go. */
export const spotTool: Tool = freehand((points) => {
  const { piece } = useBench.getState();
  if (!piece) return;
  const { width, height } = piece.photo;
  const places = thinned(inFile(points), useReady.getState().spotSize * unitOf({ width, height }) * 0.15);
  void addSpot({ points: places.map(([x, y]) => [rounded(x / width), rounded(y / height)]), size: useReady.getState().spotSize }).catch(complain);
});

/** Leaves out points nearer to the one before than `near`; the last stays. */
function thinned(points: Point[], near: number): Point[] {
  const out = [points[0]];
  points.forEach((p, i) => {
    const last = out[out.length - 1];
    if (i > 0 && (Math.hypot(p[0] - last[0], p[1] - last[1]) >= near || (i === points.length - 1 && i > 1))) out.push(p);
  });
  return out.slice(0, 2000);
}

const hueSchema = z.object(hueFields);

/** A tap on a colour: a range around its hue, to turn, strengthen or lighten. */
export const hueTool: Tool = {
  down: () => undefined,
  move: () => undefined,
  up(point) {
    const colour = spotColour(point);
    if (!colour) return;
    const { hue, chroma } = hueOf(colour);
    if (chroma < 0.03) return say(words.ready.thatPlaceIsNearlyGrey);
    useBench.getState().change(
      words.common.pickAColour,
      changeReady((r) => ({ ...r, hues: [...(r.hues ?? []), hueSchema.parse({ hue: Math.round(hue) % 360 })].slice(-12) })),
    );
    useReady.getState().set({ tool: 'frame' });
  },
  cancel: () => undefined,
};

/** Mean colour of the canvas around a point, 0..1; null beside the picture. */
export function spotColour(point: ToolPoint): [number, number, number] | null {
  const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="picture"] canvas');
  const box = canvas?.getBoundingClientRect();
  const around = canvas?.parentElement?.getBoundingClientRect();
  if (!canvas || !box || !around) return null;
  const k = canvas.width / box.width;
  const x = Math.round((point.px + around.left - box.left) * k);
  const y = Math.round((point.py + around.top - box.top) * k);
  if (x < 0 || y < 0 || x >= canvas.width || y >= canvas.height) return null;
  const { data } = canvas.getContext('2d')!.getImageData(Math.max(0, x - 2), Math.max(0, y - 2), 5, 5);
  const sum = [0, 0, 0, 0];
  data.forEach((v, i) => (sum[i % 4] += v));
  const n = sum[3] / 255;
  return n > 0 ? [sum[0] / n / 255, sum[1] / n / 255, sum[2] / n / 255] : null;
}

/** What one pointer does while the photo is readied; null pans. */
export function readyToolOf(facet: FacetId | null, tool: ReadyTool): Tool | null {
  if (facet === 'spots') return spotTool;
  if (facet === 'frame') return tool === 'line' ? lineTool : tool === 'uprights' ? uprightsTool : tool === 'bend' ? bendTool : null;
  return facet !== 'colour' ? null : tool === 'neutral' ? neutralTool : tool === 'hue' ? hueTool : null;
}
