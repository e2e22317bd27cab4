import { useEffect, useRef, useState, type CSSProperties, type PointerEvent, type ReactNode } from 'react';
import { pieceSize } from '@/core/ready/geometry';
import type { Stage } from '@/core/render/stages';
import { useGestures } from '../bench/gestures';
import { edge } from '../bench/Wipe';
import { SANS, SANS_MEDIUM, useColours } from '../theme';
import { words } from '../words';
import { useCompareView, type CompareWay } from './compareStore';
import { Pane } from './Pane';

/** A state with the name under which it is offered. */
export interface NamedStage extends Stage {
  name: string;
}

interface PanesProps {
  stages: readonly NamedStage[];
  /** All states that can be shown. */
  offered: readonly NamedStage[];
  /** Another state in place of one that is shown. */
  onPick(index: number, id: string): void;
}

const nothing = () => undefined;

/** A place for pictures that is panned, pinched and zoomed together with all others. */
function Place({ label, measures, children }: { label: string; measures: boolean; children: ReactNode }) {
  const c = useColours();
  const place = useRef<HTMLDivElement>(null);
  useGestures(place, null, nothing, useCompareView);
  useEffect(() => {
    const element = place.current;
    if (!element || !measures) return;
    const watch = new ResizeObserver(() => useCompareView.getState().resize(element.clientWidth, element.clientHeight, true));
    watch.observe(element);
    return () => watch.disconnect();
  }, [measures]);
  return (
    <div
      ref={place}
      role="group"
      aria-label={label}
      tabIndex={0}
      data-testid="compared"
      onKeyDown={(e) => {
        const step = { ArrowLeft: [40, 0], ArrowRight: [-40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] }[e.key];
        if (!step || e.target !== e.currentTarget) return;
        e.preventDefault();
        useCompareView.getState().pan(step[0], step[1]);
      }}
      style={{ ...frame, background: c.card }}
    >
      {children}
    </div>
  );
}

/** The states side by side, wiped against each other, or what is different between two of them. */
export function Panes({ way, gain, ...rest }: PanesProps & { way: CompareWay; gain: number }) {
  const { stages } = rest;
  const { width, height } = pieceSize(stages[0].piece);
  useEffect(() => useCompareView.getState().fit({ width, height }), [width, height]);
  if (way === 'wipe') return <Wiped {...rest} />;
  if (way === 'difference') return <Difference {...rest} gain={gain} />;
  return (
    <div className={`dx-compared dx-compared-${stages.length} ${width > height ? 'dx-lying' : ''}`} style={grid}>
      {stages.map((stage, i) => (
        <Place key={i} label={words.compare.shows(i + 1, stage.name)} measures={i === 0}>
          <Pane stage={stage} />
          <State index={i} side="left" isAlone {...rest} />
        </Place>
      ))}
    </div>
  );
}

/** The name of a state on its picture, by which another is chosen. */
function State({ index, side, isAlone, stages, offered, onPick }: PanesProps & { index: number; side: 'left' | 'right'; isAlone?: boolean }) {
  const c = useColours();
  return (
    <select
      data-handle
      aria-label={words.compare.pictureNumber(index + 1)}
      value={stages[index].id}
      onChange={(e) => onPick(index, e.target.value)}
      style={{
        ...name,
        [side]: 6,
        maxWidth: isAlone ? 'calc(100% - 12px)' : '46%',
        background: c.chrome,
        color: c.ink,
        fontFamily: SANS_MEDIUM,
        borderColor: c.quiet,
      }}
    >
      {offered.map((stage) => (
        <option key={stage.id} value={stage.id}>
          {stage.name}
        </option>
      ))}
    </select>
  );
}

function Wiped(props: PanesProps) {
  const [left, right] = props.stages;
  const [at, setAt] = useState(0.5);
  const to = (share: number) => setAt(Math.min(1, Math.max(0, share)));
  const move = (e: PointerEvent<HTMLDivElement>) => {
    const box = e.currentTarget.parentElement?.getBoundingClientRect();
    if (box) to((e.clientX - box.left) / box.width);
  };
  return (
    <Place label={words.compare.shows(1, left.name)} measures>
      <Pane stage={right} />
      <Pane stage={left} style={{ clipPath: `inset(0 ${(1 - at) * 100}% 0 0)` }} />
      <div
        role="slider"
        tabIndex={0}
        data-handle
        aria-label={words.compare.edge}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(at * 100)}
        onPointerDown={(e) => {
          e.stopPropagation();
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => e.buttons > 0 && move(e)}
        onKeyDown={(e) => {
          const step = { ArrowLeft: -0.05, ArrowRight: 0.05 }[e.key];
          if (!step) return;
          e.preventDefault();
          e.stopPropagation();
          to(at + step);
        }}
        style={{ ...grip, left: `${at * 100}%` }}
      >
        <div style={{ ...edge, left: '50%' }} />
      </div>
      <State index={0} side="left" {...props} />
      <State index={1} side="right" {...props} />
    </Place>
  );
}

/** |a − b|, multiplied: the browser lays one canvas on the other with the standard's blend mode "difference". */
function Difference({ gain, ...props }: PanesProps & { gain: number }) {
  const [a, b] = props.stages;
  const c = useColours();
  return (
    <>
      <Place label={words.compare.difference} measures>
        <div style={{ position: 'absolute', inset: 0, isolation: 'isolate', filter: `brightness(${gain})` }}>
          <Pane stage={a} />
          <Pane stage={b} style={{ mixBlendMode: 'difference' }} />
        </div>
        <State index={0} side="left" {...props} />
        <State index={1} side="right" {...props} />
      </Place>
      <div aria-hidden style={{ ...scale, color: c.ink, fontFamily: SANS }}>
        <span>{words.compare.same}</span>
        <span style={ramp} />
        <span>{words.compare.levels(Math.round(255 / gain))}</span>
      </div>
    </>
  );
}

const frame: CSSProperties = {
  position: 'relative',
  flex: 1,
  minWidth: 0,
  minHeight: 0,
  overflow: 'hidden',
  touchAction: 'none',
  userSelect: 'none',
};
const grid: CSSProperties = { flex: 1, minHeight: 0, display: 'grid', gap: 2 };
const name: CSSProperties = {
  position: 'absolute',
  top: 6,
  minHeight: 44,
  padding: '0 8px',
  fontSize: 14,
  border: '1px solid',
  borderRadius: 2,
  textOverflow: 'ellipsis',
};
const grip: CSSProperties = { position: 'absolute', top: 0, bottom: 0, width: 44, marginLeft: -22, cursor: 'ew-resize', touchAction: 'none' };
const scale: CSSProperties = { display: 'flex', alignItems: 'center', gap: 8, padding: '6px 14px', fontSize: 13 };
const ramp: CSSProperties = { flex: 1, height: 10, borderRadius: 2, background: 'linear-gradient(90deg, #000, #fff)' };
