import { create } from 'zustand';
import type { Stroke } from '../core/strokes/schema';
import { words } from './words';

type Shape = Pick<Stroke, 'tip' | 'material' | 'marks' | 'angle' | 'follow' | 'spacing' | 'jitter' | 'ring' | 'presses'>;

interface BrushState extends Shape {
  /** Diameter in u. */
  size: number;
  hardness: number;
  strength: number;
  flow: number;
  does: Stroke['does'];
  level: number;
  /** How far the tip lags behind, 0..1, so that a line comes out smooth. */
  smooth: number;
  /** Lines from tap to tap. */
  straight: boolean;
  set(change: Partial<Omit<BrushState, 'set'>>): void;
}

/** The brush in hand. Part strength and a soft edge to begin with: what is built up slowly looks real. */
export const useBrush = create<BrushState>((set) => ({
  size: 180,
  hardness: 0,
  strength: 0.3,
  flow: 0.5,
  does: 'take',
  level: 0.5,
  straight: false,
  smooth: 0,
  tip: 'round',
  material: undefined,
  marks: 'lights',
  angle: 0,
  follow: true,
  spacing: 0.1,
  jitter: 0,
  ring: false,
  presses: 'both',
  set: (change) => set(change),
}));

const percent = (v: number) => `${Math.round(v * 100)} %`;

/** The line that says what a stroke will do. */
export function strokeSentence(brush: Pick<BrushState, 'does' | 'strength' | 'level' | 'ring'>, coat: string): string {
  const around = brush.ring ? words.brush.around(percent(brush.strength / 2)) : '';
  if (brush.does === 'put') return words.brush.restoring(coat, percent(brush.strength), around);
  if (brush.does === 'level') return words.brush.settingToHereBy(coat, percent(brush.level), percent(brush.strength));
  return words.brush.erasing(coat, percent(brush.strength), around);
}
