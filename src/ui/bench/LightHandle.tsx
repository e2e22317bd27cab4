import type { Lamp } from '@/core/form/lamp';
import { changeStep, type Edit } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { treatmentByKind } from '@/core/treatments';
import { chosenCoat, useBench } from '@/store/bench';
import { words } from '../words';
import { lightOf, setLight } from './facets/MaterialLight';
import { cover } from './handleStyles';
import { PointHandle } from './PointHandle';
import { toView, useViewport, zoomOf } from './viewport';

/** How long the arrow of a light that grazes the surface is, in parts of the photo's shorter side. */
const LONGEST = 0.4;
const LOWEST = 5;
const HIGHEST = 85;
/** Where there is no height of the light, the arrow is as long as at this one, in degrees. */
const MIDDLE = 45;

/** The lit step of a coat that is changed on the picture: the last one on the open tab that is on. */
const litStepOf = ({ treatments }: Coat, ofSurface: boolean) =>
  treatments.findLastIndex((step) => {
    const { isLit, ofSurface: isOf = false } = treatmentByKind(step.kind as string);
    return step.active !== false && isLit === true && isOf === ofSurface;
  });

interface Lit {
  label: string;
  lamp: { direction: number; elevation?: number };
  /** Names its steps of undo (`PointHandle`). */
  run: string;
  lightBy(lamp: Partial<Lamp>): Edit;
}

function litStep(coat: Coat, ofSurface: boolean): Lit | null {
  const index = litStepOf(coat, ofSurface);
  if (index < 0) return null;
  const step = coat.treatments[index] as { kind: string; direction: number; elevation?: number };
  const { label } = treatmentByKind(step.kind);
  return { label, lamp: step, run: `${coat.id}.${index}.light`, lightBy: (lamp) => changeStep(coat.id, index, lamp) };
}

/** The material of a coat, where it is lit from a side. */
function litMaterial(coat: Coat): Lit | null {
  if (coat.source.kind !== 'material') return null;
  const light = lightOf(coat);
  return light.from === 'side'
    ? { label: words.material.light, lamp: light, run: `${coat.id}.light`, lightBy: (lamp) => setLight(coat, lamp) }
    : null;
}

/** An arrow from the light to the middle of the photo: its way is the direction of the light, and it is the shorter the higher the light stands. */
export function LightHandle({ on }: { on: 'surface' | 'tone' | 'material' }) {
  const coat = useBench(chosenCoat);
  const v = useViewport();
  const lit = coat && (on === 'material' ? litMaterial(coat) : litStep(coat, on === 'surface'));
  if (!lit) return null;
  const { label, lamp, run, lightBy } = lit;
  const { width, height } = v.photo;
  const zoom = zoomOf(v);
  const longest = LONGEST * Math.min(width, height);
  const [from, up] = [(lamp.direction * Math.PI) / 180, ((lamp.elevation ?? MIDDLE) * Math.PI) / 180];
  const long = longest * Math.cos(up);
  const at: [number, number] = [0.5 + (long * Math.sin(from)) / width, 0.5 - (long * Math.cos(from)) / height];
  const [x1, y1] = toView(v, zoom, at[0] * width, at[1] * height);
  const [x2, y2] = toView(v, zoom, width / 2, height / 2);
  const move = (x: number, y: number) => {
    const [dx, dy] = [(x - 0.5) * width, (y - 0.5) * height];
    const direction = Math.round((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360;
    const elevation = Math.round((Math.acos(Math.min(1, Math.hypot(dx, dy) / longest)) * 180) / Math.PI);
    return lightBy({
      direction,
      ...(lamp.elevation === undefined ? {} : { elevation: Math.min(HIGHEST, Math.max(LOWEST, elevation)) }),
    });
  };
  const head = arrowHead(x1, y1, x2, y2);
  return (
    <div style={cover} data-testid="light-handle">
      <svg style={cover} aria-hidden>
        {(['#000', '#fff'] as const).map((stroke, i) => (
          <g key={stroke} stroke={stroke} strokeOpacity={i === 0 ? 0.5 : 1} strokeWidth={i === 0 ? 4 : 1.75} fill="none" strokeLinecap="round">
            <line x1={x1} y1={y1} x2={x2} y2={y2} />
            <polyline points={head} />
          </g>
        ))}
      </svg>
      <PointHandle name={words.light.handle} at={at} move={move} step={words.light.move(label)} run={run} />
    </div>
  );
}

/** Two short lines at the end of an arrow. */
function arrowHead(x1: number, y1: number, x2: number, y2: number): string {
  const way = Math.atan2(y2 - y1, x2 - x1);
  const side = (by: number) => `${x2 - 12 * Math.cos(way + by)},${y2 - 12 * Math.sin(way + by)}`;
  return `${side(0.5)} ${x2},${y2} ${side(-0.5)}`;
}
