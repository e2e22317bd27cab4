import { setLay } from '@/core/piece/edits';
import { findCoat } from '@/core/piece/groups';
import type { Coat } from '@/core/piece/schema';
import type { Point } from '@/core/image/projection';
import type { Lay } from '@/core/lay/lay';
import { movedBy, pinched } from '@/core/lay/laying';
import { useBench } from '@/store/bench';
import { HeldEdit } from '@/store/editing';
import { placing } from '@/store/laying';
import type { Tool, ToolPoint } from './gestures';
import { useViewport, zoomOf } from './viewport';
import { words } from '../words';

let begun: { coat: Coat; from: Point } | null = null;
let fingers: { coat: Coat; from: [Point, Point] } | null = null;
const held = new HeldEdit();

const kept = (): Coat | null => {
  const { chosen, piece } = useBench.getState();
  return piece && findCoat(piece, chosen);
};
const photo = () => useViewport.getState().photo;
const onPhoto = (p: ToolPoint): Point => [p.x * photo().width, p.y * photo().height];
const show = (coat: Coat, change: Partial<Lay>) => held.show(placing(coat, change), setLay(coat.id, change));

/** Moves the material by an arrow key: two pixels of the screen, twenty with Shift. */
export function nudgeLay([dx, dy]: [number, number], far: boolean): void {
  const coat = kept();
  if (!coat) return;
  const by = (far ? 20 : 2) / zoomOf(useViewport.getState());
  useBench
    .getState()
    .change(words.lay.moveTheMaterial, setLay(coat.id, movedBy(coat.lay, photo(), [0, 0], [dx * by, dy * by])), `${coat.id}.lay.arrows`);
}

/** Moves the chosen coat's material on the picture; two fingers scale and turn it. */
export const layTool: Tool = {
  down(point) {
    const coat = kept();
    begun = coat && { coat, from: onPhoto(point) };
  },
  move(points) {
    const to = points[points.length - 1];
    if (begun && to) show(begun.coat, movedBy(begun.coat.lay, photo(), begun.from, onPhoto(to)));
  },
  up() {
    if (begun) held.keep(words.lay.moveTheMaterial);
    begun = null;
  },
  cancel() {
    begun = fingers = null;
    held.drop();
  },
  pinch: {
    begin(a, b) {
      const coat = kept();
      begun = null;
      fingers = coat && { coat, from: [onPhoto(a), onPhoto(b)] };
    },
    move(a, b) {
      if (fingers) show(fingers.coat, pinched(fingers.coat.lay, photo(), fingers.from, [onPhoto(a), onPhoto(b)]));
    },
    end() {
      if (fingers) held.keep(words.lay.turnAndScaleTheMaterial);
      fingers = null;
    },
  },
};
