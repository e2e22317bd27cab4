import { pieceSize } from '@/core/ready/geometry';
import { useEffect, useMemo, useRef, useState, type CSSProperties } from 'react';
import { maskColours, useColours } from '../theme';
import { getEngine } from '@/store/engine';
import { shownPiece, useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { framing, isFraming, useReady } from '@/store/ready';
import { complain } from '@/store/notices';
import { measure, measureWhole, useScopes } from '@/store/scopes';
import { useGuards } from '@/store/guards';
import { usePicking } from '@/store/picking';
import { useSettings } from '@/store/settings';
import type { View } from '@/core/render/view';
import { useGestures, type ToolPoint } from './gestures';
import { GradientHandles } from './GradientHandles';
import { Handles } from './Handles';
import { Painter } from './painter';
import { CornerHandles } from './CornerHandles';
import { DrawnLine } from './DrawnLine';
import { FrameHandles } from './FrameHandles';
import { SpotHandles } from './SpotHandles';
import { Loupe } from './Loupe';
import { pickTool } from './pickTool';
import { readyToolOf } from './readyTools';
import { LayHandles } from './LayHandles';
import { guardTool } from './guardTool';
import { arrowStep } from './handleStyles';
import { layTool, nudgeLay } from './layTool';
import { brushTool } from './tools';
import { toView, useViewport, zoomOf } from './viewport';
import { UNITS, unitOf } from '@/core/image/unit';

/** The picture on its neutral card, with the pointer's tool and the handles of the open facet. */
export function PictureView() {
  const c = useColours();
  const place = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [painter, setPainter] = useState<Painter | null>(null);
  const [seen, setSeen] = useState(false);
  const [hover, setHover] = useState<ToolPoint | null>(null);
  const shown = useBench(shownPiece);
  const { chosen, facet, held, maskView, card } = useBench();
  const clear = isFraming(chosen, facet);
  const readyTool = useReady((s) => s.tool);
  const piece = useMemo(() => (shown && clear ? framing(shown, readyTool) : shown), [shown, clear, readyTool]);
  const viewport = useViewport();
  const colourId = useSettings((s) => s.maskColour);
  const { part } = useScopes();
  const watched = useScopes((s) => s.watchers > 0);
  const clipping = useScopes((s) => s.clipping && s.watchers > 0);
  const zoom = zoomOf(viewport);
  const density = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;

  const { region, show, does: guardDoes } = useGuards();
  const guarding = facet === 'guards' && shown?.guards !== undefined;

  const view = useMemo((): View => {
    if (held) return held;
    if (guarding && show === 'heat') return { kind: 'heat' };
    if (maskView === 'alone' && chosen) return { kind: 'mask', coat: chosen };
    const colour = (maskColours.find((m) => m.id === colourId) ?? maskColours[0]).rgb;
    if (guarding && show === 'colour') return { kind: 'guards', region, colour };
    if (maskView === 'over' && chosen) return { kind: 'maskOver', coat: chosen, colour };
    return { kind: 'piece' };
  }, [held, maskView, chosen, colourId, guarding, show, region]);

  useEffect(() => {
    let live = true;
    let made: Painter | null = null;
    const again = () => made?.again();
    void getEngine().then((engine) => {
      if (!live || !canvas.current) return;
      const painting = new Painter(engine, canvas.current, complain, () => setSeen(true), measure);
      made = painting;
      window.addEventListener('dermatex:measure', again);
      setPainter(painting);
    }, complain);
    return () => {
      live = false;
      window.removeEventListener('dermatex:measure', again);
      made?.close();
    };
  }, []);

  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const watch = new ResizeObserver(() => useViewport.getState().set({ width: element.clientWidth, height: element.clientHeight }));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);

  const { width, height } = piece ? pieceSize(piece) : { width: 1, height: 1 };
  const pieceId = piece?.id;
  useEffect(() => {
    useViewport.getState().fit({ width, height });
  }, [width, height, pieceId]);

  const { width: vw, height: vh, x, y } = viewport;
  useEffect(() => {
    if (painter && piece && vw > 0)
      painter.request({ piece, view, chosen, viewport: { width: vw, height: vh, zoom, x, y }, zoom, density, clear, clipping });
  }, [painter, piece, view, chosen, vw, vh, x, y, zoom, density, clear, clipping]);

  // What is drawn cannot be measured when only a part of it is in view, or when it is painted over.
  useEffect(() => {
    if (watched && shown && (part === 'whole' || clipping)) void measureWhole(shown, view).catch(complain);
  }, [watched, part, clipping, shown, view]);

  // What a pointer does belongs to the open facet; leaving it puts the tool away.
  useEffect(() => useReady.getState().set({ tool: 'frame', line: null, first: null, stroke: null, spot: null }), [facet, chosen]);
  const picking = usePicking((s) => s.asked !== null);
  useEffect(() => usePicking.getState().stop(), [facet, chosen]);
  const tool = picking
    ? pickTool
    : guarding && region
      ? guardTool
      : chosen === null
        ? readyToolOf(facet, readyTool)
        : facet === 'where'
          ? brushTool
          : facet === 'lay'
            ? layTool
            : null;
  useGestures(place, tool, setHover);

  const { size, does, tip, angle, ring: around } = useBrush();
  const spotSize = useReady((s) => s.spotSize);
  const spotting = chosen === null && facet === 'spots';
  const painting = (facet === 'where' && chosen !== null) || (guarding && region !== null);
  const showRing = (painting || spotting) && hover !== null;
  const file = piece ? Math.max(piece.photo.width, piece.photo.height) : 1;
  const ring = spotting ? (spotSize / UNITS) * file * zoom : size * unitOf({ width, height }) * zoom;
  return (
    <div
      ref={place}
      role="group"
      aria-label={piece ? `${piece.name}, ${Math.round(zoom * density * 100)} %` : 'Picture'}
      data-testid="picture"
      tabIndex={0}
      onKeyDown={(e) => {
        const step = arrowStep(e.key);
        if (!step || e.target !== e.currentTarget) return;
        e.preventDefault();
        if (tool === layTool) nudgeLay(step, e.shiftKey);
        else useViewport.getState().pan(-40 * step[0], -40 * step[1]);
      }}
      style={{ ...frame, background: c.card, cursor: tool && facet !== 'lay' ? 'crosshair' : 'default' }}
    >
      {card && piece && !seen && vw > 0 ? <img alt="" src={card} style={{ ...sheet, ...whole(viewport, zoom) }} data-testid="kept-picture" /> : null}
      <canvas ref={canvas} style={sheet} width={1} height={1} />
      <Loupe />
      {showRing ? (
        <div
          aria-hidden
          style={{
            ...ringStyle,
            left: hover.px - ring / 2,
            top: hover.py - ring / 2,
            width: ring,
            height: ring,
            ...(tip === 'flat' && !guarding && !spotting ? { height: ring / 3, top: hover.py - ring / 6, transform: `rotate(${angle}deg)` } : null),
            borderStyle: (guarding ? guardDoes : does) === 'put' ? 'dashed' : 'solid',
          }}
        />
      ) : null}
      {showRing && around && !guarding && !spotting ? (
        <div
          aria-hidden
          style={{ ...ringStyle, left: hover.px - ring, top: hover.py - ring, width: 2 * ring, height: 2 * ring, borderStyle: 'dotted' }}
        />
      ) : null}
      {clear && (readyTool === 'frame' || readyTool === 'line') ? <FrameHandles /> : null}
      {facet === 'material' ? <GradientHandles /> : null}
      {facet === 'lay' && !held ? <LayHandles /> : null}
      {clear && readyTool === 'corners' ? <CornerHandles /> : null}
      {spotting ? <SpotHandles /> : null}
      <DrawnLine />
      <Handles />
    </div>
  );
}

/** Where the whole photo lies in the view. */
const whole = (v: ReturnType<typeof useViewport.getState>, zoom: number): CSSProperties => {
  const [left, top] = toView(v, zoom, 0, 0);
  return { left, top, width: v.photo.width * zoom, height: v.photo.height * zoom };
};

const frame: CSSProperties = { position: 'absolute', inset: 0, overflow: 'hidden', touchAction: 'none', userSelect: 'none' };
const sheet: CSSProperties = { position: 'absolute', boxShadow: '0 1px 6px rgba(0,0,0,0.35)' };
const ringStyle: CSSProperties = {
  position: 'absolute',
  borderRadius: '50%',
  border: '1.5px solid #fff',
  boxShadow: '0 0 0 1px rgba(0,0,0,0.55)',
  boxSizing: 'border-box',
  pointerEvents: 'none',
};
