import type { GradientPart } from '@/core/mask/parts/gradient';
import { changePart, exchangeSource, type Edit, type SourceInput } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { cover } from './handleStyles';
import { PointHandle } from './PointHandle';
import { toView, useViewport, zoomOf } from './viewport';
import { words } from '../words';

/** Two points on the picture, in fractions of the photo. */
interface Ends {
  names: [string, string];
  from: [number, number];
  to: [number, number];
  /** What is changed when an end moves there, and what the step and its run are called. */
  move(end: 0 | 1, x: number, y: number): Edit;
  step: string;
  run: string;
  testID: string;
}

/** The ends of a gradient coat: where its first colour stands, and its last. */
export function GradientHandles() {
  const coat = useBench(chosenCoat);
  const { width, height } = useViewport((s) => s.photo);
  if (!coat || (coat.source as { kind: string }).kind !== 'gradient') return null;
  const source = coat.source as unknown as SourceInput & { x1: number; y1: number; x2: number; y2: number; straight: boolean };
  /** Where an end goes: level with the other, or upright over it, where the gradient is held straight. */
  const held = (x: number, y: number, [ox, oy]: [number, number]): [number, number] => {
    if (!source.straight) return [x, y];
    return Math.abs((x - ox) * width) >= Math.abs((y - oy) * height) ? [x, oy] : [ox, y];
  };
  const move = (end: 0 | 1, px: number, py: number) => {
    const [x, y] = held(px, py, end === 0 ? [source.x2, source.y2] : [source.x1, source.y1]);
    return exchangeSource(coat.id, { ...source, ...(end === 0 ? { x1: x, y1: y } : { x2: x, y2: y }) });
  };
  return (
    <EndHandles
      names={[words.gradient.firstEndOfTheGradient, words.gradient.lastEndOfTheGradient]}
      from={[source.x1, source.y1]}
      to={[source.x2, source.y2]}
      move={move}
      step={words.gradient.moveTheGradient}
      run={`${coat.id}.gradient`}
      testID="gradient-handles"
    />
  );
}

/** The ends of a mask's gradient: where it begins, and where it is whole. */
export function MaskGradientHandles({ coat, index, part }: { coat: string; index: number; part: GradientPart }) {
  return (
    <EndHandles
      names={[words.gradient.whereTheGradientBegins, words.gradient.whereTheGradientIsWhole]}
      from={[part.x0, part.y0]}
      to={[part.x1, part.y1]}
      move={(end, x, y) => changePart(coat, index, end === 0 ? { x0: x, y0: y } : { x1: x, y1: y })}
      step={words.gradient.moveTheGradient}
      run={`${coat}.${index}.gradient`}
      testID="mask-gradient-handles"
    />
  );
}

function EndHandles({ names, from, to, move, step, run, testID }: Ends) {
  const v = useViewport();
  const zoom = zoomOf(v);
  const { width: W, height: H } = v.photo;
  const ends = [from, to];
  const places = ends.map(([x, y]) => toView(v, zoom, x * W, y * H));
  return (
    <div style={cover} data-testid={testID}>
      <svg style={cover} aria-hidden>
        <line x1={places[0][0]} y1={places[0][1]} x2={places[1][0]} y2={places[1][1]} stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <line x1={places[0][0]} y1={places[0][1]} x2={places[1][0]} y2={places[1][1]} stroke="#fff" strokeWidth={1.5} />
      </svg>
      {([0, 1] as const).map((end) => (
        <PointHandle key={end} name={names[end]} at={ends[end]} move={(x, y) => move(end, x, y)} step={step} run={run} square={end === 1} />
      ))}
    </div>
  );
}
