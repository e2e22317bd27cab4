import { create } from 'zustand';
import type { StrokesSource } from '../core/sources/strokes';
import type { Stroke } from '../core/strokes/schema';
import { marksOf } from '../core/piece/marks';
import { chosenCoat, useBench } from './bench';
import { isNudging, useNudging } from './nudging';
import { words } from './words';

type Shape = Pick<
  Stroke,
  'tip' | 'material' | 'marks' | 'angle' | 'follow' | 'spacing' | 'jitter' | 'varySize' | 'varyTurn' | 'varyAmount' | 'ring' | 'presses'
>;

interface BrushState extends Shape {
  /** Diameter in u. */
  size: number;
  hardness: number;
  strength: number;
  flow: number;
  does: Stroke['does'];
  level: number;
  /** What marks are painted in. */
  colour: string;
  /** How far the tip lags behind, 0..1, so that a line comes out smooth. */
  smooth: number;
  /** Lines from tap to tap. */
  straight: boolean;
  set(change: Partial<Omit<BrushState, 'set'>>): void;
}

/** What lightens and what darkens in soft light. */
export const LIGHT = '#ffffff';
export const DARK = '#000000';

const begin = (first: Partial<BrushState>) =>
  create<BrushState>((set) => ({
    size: 180,
    hardness: 0,
    strength: 0.3,
    flow: 0.5,
    does: 'take',
    level: 0.5,
    colour: '#8a2b20',
    straight: false,
    smooth: 0,
    tip: 'round',
    material: undefined,
    marks: 'lights',
    angle: 0,
    follow: true,
    spacing: 0.1,
    jitter: 0,
    varySize: 0,
    varyTurn: 0,
    varyAmount: 0,
    ring: false,
    presses: 'both',
    ...first,
    set: (change) => set(change),
  }));

/** The brush for masks. Part strength and a soft edge to begin with: what is built up slowly looks real. */
export const useBrush = begin({});

/** The brush for marks: paint that covers. */
export const useMarkBrush = begin({ size: 40, hardness: 0.8, strength: 1, flow: 1, does: 'put', presses: 'size' });

/** The brush for dodging and burning: wide, soft and weak, so that light is built up. */
export const useLightBrush = begin({ size: 220, strength: 0.12, does: 'put', colour: LIGHT });

/** The brush for a coat of marks. */
export const brushFor = (source: Pick<StrokesSource, 'use'> | null): typeof useBrush => (source?.use === 'light' ? useLightBrush : useMarkBrush);

/** The brush that moves a texture: wide, and strong enough to be seen at once. */
export const useNudgeBrush = begin({ size: 240, strength: 0.7, does: 'put' });

/** Which brush a drag on the picture works with: that for marks on the tab of a coat of marks, that which moves a texture, else that for masks. */
export function brushInHand(): typeof useBrush {
  const bench = useBench.getState();
  if (isNudging(bench)) return useNudgeBrush;
  return isMarking(bench) ? brushFor(marksOf(chosenCoat(bench))) : useBrush;
}

/** True on the tab on which marks are painted. */
export const isMarking = (bench: ReturnType<typeof useBench.getState>): boolean => bench.facet === 'material' && marksOf(chosenCoat(bench)) !== null;

/** Whether marks are shown on a plain ground while they are painted, and where the next straight line goes on from. */
export const useMarking = create<{ onGround: boolean; lineFrom: readonly [coat: string, x: number, y: number] | null }>(() => ({
  onGround: false,
  lineFrom: null,
}));

const percent = (v: number) => `${Math.round(v * 100)} %`;

/** The line that says what a stroke will do. */
export function strokeSentence(brush: Pick<BrushState, 'does' | 'strength' | 'level' | 'ring'>, coat: string): string {
  const around = brush.ring ? words.brush.around(percent(brush.strength / 2)) : '';
  if (brush.does === 'put') return words.brush.restoring(coat, percent(brush.strength), around);
  if (brush.does === 'level') return words.brush.settingToHereBy(coat, percent(brush.level), percent(brush.strength));
  return words.brush.erasing(coat, percent(brush.strength), around);
}

/** The line that says what a stroke of paint, or of light, will do. */
export function markSentence({ does, straight, colour }: Pick<BrushState, 'does' | 'straight' | 'colour'>, coat: string, isLight: boolean): string {
  if (does === 'take') return words.brush.erasingMarks(coat);
  if (isLight) return colour === LIGHT ? words.brush.lightening : words.brush.darkening;
  return straight ? words.brush.rulingMarks(coat) : words.brush.painting(coat);
}

/** The line that says what a stroke that moves a texture will do. */
export const nudgeSentence = (coat: string, strength: number): string => words.brush.nudging[useNudging.getState().does](coat, percent(strength));
