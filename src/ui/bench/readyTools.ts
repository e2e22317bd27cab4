import * as z from 'zod';
import { balanceFields } from '@/core/treatments/balance';
import { turnByLine } from '@/core/ready/editing';
import { withTurn } from '@/core/ready/frame';
import type { Line } from '@/core/ready/level';
import type { Point } from '@/core/ready/matrix';
import { uprightCorners, withCorners } from '@/core/ready/perspective';
import type { Ready } from '@/core/ready/schema';
import { useBench } from '@/store/bench';
import { complain, say } from '@/store/notices';
import { changeReady, readyOf, useReady } from '@/store/ready';
import type { Tool, ToolPoint } from './gestures';
import { useViewport } from './viewport';

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
      'Level by a line',
      changeReady((r) => withTurn(piece.photo, r, turn)),
    );
    say(`Turned to ${turn.toFixed(1)}°.`);
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
        'Uprights by two lines',
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
      'Pick a grey',
      changeReady((r) => ({ ...r, whiteBalance: { ...balanceSchema.parse({ ...r.whiteBalance }), neutral } }) as Ready),
    );
    useReady.getState().set({ tool: 'frame' });
  },
  cancel: () => undefined,
};

const balanceSchema = z.object(balanceFields);
