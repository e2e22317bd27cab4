import { toHex } from '@/core/measure/palette';
import { say } from '@/store/notices';
import { usePicking } from '@/store/picking';
import type { Tool, ToolPoint } from './gestures';
import { spotColour } from './readyTools';
import { words } from '../words';

const look = (point: ToolPoint) => {
  const colour = spotColour(point);
  usePicking.getState().show(colour ? { x: point.px, y: point.py, hex: toHex(colour) } : null);
};

/** While a colour is asked for: the loupe follows, and where the pointer lifts the colour is taken. */
export const pickTool: Tool = {
  down: look,
  move(points) {
    if (points.length > 0) look(points[points.length - 1]);
  },
  up(point) {
    const colour = spotColour(point);
    const { asked, stop } = usePicking.getState();
    if (!colour) return say(words.pick.tapAPlaceOnThe);
    stop();
    asked?.take(toHex(colour));
  },
  cancel: () => usePicking.getState().show(null),
};
