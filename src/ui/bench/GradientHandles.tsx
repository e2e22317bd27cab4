import type { PointerEvent } from 'react';
import type { GradientPart } from '@/core/mask/parts/gradient';
import { changePart, exchangeSource, type Edit, type SourceInput } from '@/core/piece/edits';
import { chosenCoat, useBench } from '@/store/bench';
import { useHeldEdit } from '@/store/editing';
import { arrowStep, cover, grab, mark } from './handleStyles';
import { toPhoto, toView, useViewport, zoomOf } from './viewport';
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
  if (!coat || (coat.source as { kind: string }).kind !== 'gradient') return null;
  const source = coat.source as unknown as SourceInput & { x1: number; y1: number; x2: number; y2: number };
  return (
    <EndHandles
      names={[words.gradient.firstEndOfTheGradient, words.gradient.lastEndOfTheGradient]}
      from={[source.x1, source.y1]}
      to={[source.x2, source.y2]}
      move={(end, x, y) => exchangeSource(coat.id, { ...source, ...(end === 0 ? { x1: x, y1: y } : { x2: x, y2: y }) })}
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
  const held = useHeldEdit();
  const { change } = useBench.getState();
  const zoom = zoomOf(v);
  const { width: W, height: H } = v.photo;
  const ends = [from, to];
  const places = ends.map(([x, y]) => toView(v, zoom, x * W, y * H));
  const keep = (n: number) => Math.min(1.5, Math.max(-0.5, Math.round(n * 1e4) / 1e4));
  const moved = (end: 0 | 1, x: number, y: number) => move(end, keep(x), keep(y));
  const pointed = (e: PointerEvent<HTMLElement>, end: 0 | 1) => {
    const box = (e.currentTarget.closest('[data-testid="picture"]') as HTMLElement).getBoundingClientRect();
    const [px, py] = toPhoto(v, zoom, e.clientX - box.left, e.clientY - box.top);
    return moved(end, px / W, py / H);
  };
  return (
    <div style={cover} data-testid={testID}>
      <svg style={cover} aria-hidden>
        <line x1={places[0][0]} y1={places[0][1]} x2={places[1][0]} y2={places[1][1]} stroke="#000" strokeOpacity={0.5} strokeWidth={3} />
        <line x1={places[0][0]} y1={places[0][1]} x2={places[1][0]} y2={places[1][1]} stroke="#fff" strokeWidth={1.5} />
      </svg>
      {([0, 1] as const).map((end) => (
        <button
          key={end}
          type="button"
          data-handle
          aria-label={names[end]}
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && held.show(pointed(e, end))}
          onPointerUp={() => held.keep(step, run)}
          onPointerCancel={() => held.drop()}
          onKeyDown={(e) => {
            const by = arrowStep(e.key);
            if (!by) return;
            e.preventDefault();
            e.stopPropagation();
            change(step, moved(end, ends[end][0] + by[0] * 0.01, ends[end][1] + by[1] * 0.01), run);
          }}
          style={{ ...grab, left: places[end][0] - 22, top: places[end][1] - 22 }}
        >
          <span style={{ ...mark, borderRadius: end === 0 ? '50%' : 0 }} />
        </button>
      ))}
    </div>
  );
}
