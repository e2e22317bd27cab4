import { useEffect, useRef, useState, type CSSProperties } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { findCoat } from '@/core/piece/groups';
import { pieceSize } from '@/core/ready/geometry';
import { useBench } from '@/store/bench';
import { useGuards } from '@/store/guards';
import { disarm, useArming } from '@/store/arming';
import { isMarking, useMarking } from '@/store/brush';
import { isCutting } from '@/store/cutting';
import { isNudging } from '@/store/nudging';
import { usePicking } from '@/store/picking';
import { useReady } from '@/store/ready';
import { useColours } from '../theme';
import { BrushRing, useHover } from './BrushRing';
import { CoatMenu, type MenuPlace } from './CoatMenu';
import { CornerHandles } from './CornerHandles';
import { DrawnLine } from './DrawnLine';
import { FrameHandles } from './FrameHandles';
import { useGestures, type Tool, type ToolPoint } from './gestures';
import { GradientHandles } from './GradientHandles';
import { SplatterHandle } from './SplatterHandle';
import { VignetteHandles } from './VignetteHandles';
import { guardTool } from './guardTool';
import { Handles } from './Handles';
import { arrowStep } from './handleStyles';
import { LayHandles } from './LayHandles';
import { cutTool } from './cutTool';
import { nudgeTool } from './nudgeTool';
import { layTool, nudgeLay } from './layTool';
import { LightHandle } from './LightHandle';
import { PerspectiveHandles } from './PerspectiveHandles';
import { Loupe } from './Loupe';
import { pickTool } from './pickTool';
import { readyToolOf } from './readyTools';
import { SpotHandles } from './SpotHandles';
import { brushTool } from './tools';
import { usePainter, useScene } from './useScene';
import { Wipe } from './Wipe';
import { toView, useViewport, zoomOf, type Viewport } from './viewport';
import { words } from '../words';

const hover = (point: ToolPoint | null) => useHover.setState({ point });

/** What a pointer on the picture works with, which belongs to the open facet; null when it moves the view. */
function useTool(): Tool | null {
  const { chosen, facet } = useBench(useShallow((s) => ({ chosen: s.chosen, facet: s.facet })));
  const guarded = useBench((s) => s.piece?.guards !== undefined);
  const region = useGuards((s) => s.region);
  const readyTool = useReady((s) => s.tool);
  const picking = usePicking((s) => s.asked !== null);
  const isArmed = useArming((s) => s.isArmed);
  const marking = useBench(isMarking);
  const nudging = useBench(isNudging);
  const cutting = useBench(isCutting);
  // Leaving a facet puts its tool away.
  useEffect(() => {
    useReady.getState().set({ tool: 'frame', line: null, first: null, stroke: null, spot: null });
    usePicking.getState().stop();
    useMarking.setState({ onGround: false, lineFrom: null });
    return disarm;
  }, [facet, chosen, region]);
  if (picking) return pickTool;
  if (facet === 'guards' && guarded && region) return isArmed ? guardTool : null;
  if (chosen === null) return facet === 'spots' && !isArmed ? null : readyToolOf(facet, readyTool);
  if (cutting) return isArmed ? cutTool : null;
  if (nudging) return isArmed ? nudgeTool : null;
  if (facet === 'where' || marking) return isArmed ? brushTool : null;
  return facet === 'lay' ? layTool : null;
}

/** The picture on its neutral card, with the pointer's tool and the handles of the open facet. */
export function PictureView() {
  const c = useColours();
  const place = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useScene();
  const { piece, clear } = scene;
  const drawn = usePainter(canvas, scene);
  const { chosen, facet, held, card } = useBench(useShallow(({ chosen, facet, held, card }) => ({ chosen, facet, held, card })));
  const readyTool = useReady((s) => s.tool);
  const viewport = useViewport(useShallow(({ width, height, x, y, zoom, photo }) => ({ width, height, x, y, zoom, photo })));
  const zoom = zoomOf(viewport);
  const density = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;
  const tool = useTool();
  const isArmed = useArming((s) => s.isArmed);
  useGestures(place, tool, hover);
  const [menu, setMenu] = useState<MenuPlace | null>(null);
  const coat = piece ? findCoat(piece, chosen) : null;

  useEffect(() => {
    const element = place.current;
    if (!element) return;
    let seen = '';
    const watch = new ResizeObserver(() => {
      // Under another screen it has no size.
      if (element.clientWidth === 0) return;
      const window = `${innerWidth} ${innerHeight}`;
      useViewport.getState().resize(element.clientWidth, element.clientHeight, window !== seen);
      seen = window;
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);

  const { width, height } = piece ? pieceSize(piece) : { width: 1, height: 1 };
  const pieceId = piece?.id;
  useEffect(() => {
    useViewport.getState().fit({ width, height });
  }, [width, height, pieceId]);

  return (
    <div
      ref={place}
      role="group"
      aria-label={piece ? words.pictureView.picture(piece.name, Math.round(zoom * density * 100)) : words.common.thePicture}
      data-testid="picture"
      tabIndex={0}
      onContextMenu={(e) => {
        e.preventDefault();
        if ((e.nativeEvent as PointerEvent).pointerType !== 'touch') setMenu({ x: e.clientX, y: e.clientY });
      }}
      onKeyDown={(e) => {
        const step = arrowStep(e.key);
        if (!step || e.target !== e.currentTarget) return;
        e.preventDefault();
        if (tool === layTool) nudgeLay(step, e.shiftKey);
        else useViewport.getState().pan(-40 * step[0], -40 * step[1]);
      }}
      style={{ ...frame, background: c.card, cursor: tool && facet !== 'lay' ? 'crosshair' : 'default' }}
    >
      {card && piece && !drawn && viewport.width > 0 ? (
        <img alt="" src={card} style={{ ...sheet, ...whole(viewport, zoom) }} data-testid="kept-picture" />
      ) : null}
      <canvas ref={canvas} style={sheet} width={1} height={1} />
      {piece ? <Wipe place={whole(viewport, zoom)} /> : null}
      <Loupe />
      {piece ? <BrushRing /> : null}
      {clear && (readyTool === 'frame' || readyTool === 'line') ? <FrameHandles /> : null}
      {facet === 'material' ? <GradientHandles /> : null}
      {facet === 'material' ? <VignetteHandles /> : null}
      {facet === 'material' ? <SplatterHandle /> : null}
      {(facet === 'surface' || facet === 'tone' || facet === 'material') && !held && !isArmed ? <LightHandle on={facet} /> : null}
      {facet === 'surface' && !held && !isArmed ? <PerspectiveHandles /> : null}
      {facet === 'lay' && !held && !coat?.lay.faces ? <LayHandles /> : null}
      {clear && readyTool === 'corners' ? <CornerHandles /> : null}
      {chosen === null && facet === 'spots' ? <SpotHandles /> : null}
      <DrawnLine />
      <Handles />
      {menu && coat ? <CoatMenu coat={coat} at={menu} onClose={() => setMenu(null)} /> : null}
    </div>
  );
}

/** Where the whole photo lies in the view. */
const whole = (v: Viewport & { photo: { width: number; height: number } }, zoom: number): CSSProperties => {
  const [left, top] = toView(v, zoom, 0, 0);
  return { left, top, width: v.photo.width * zoom, height: v.photo.height * zoom };
};

const frame: CSSProperties = { position: 'absolute', inset: 0, overflow: 'hidden', touchAction: 'none', userSelect: 'none' };
const sheet: CSSProperties = { position: 'absolute', boxShadow: '0 1px 6px rgba(0,0,0,0.35)' };
