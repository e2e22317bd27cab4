import { useEffect, useMemo, useState, type RefObject } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { parseHex } from '@/core/color/srgb';
import type { Piece } from '@/core/piece/schema';
import type { View } from '@/core/render/view';
import { shownPiece, useBench } from '@/store/bench';
import { isMarking, useMarkBrush, useMarking } from '@/store/brush';
import { getEngine } from '@/store/engine';
import { useGuards } from '@/store/guards';
import { complain } from '@/store/notices';
import { framing, isFraming, isPhotoTab, useReady } from '@/store/ready';
import { measure, measureWhole, useScopes } from '@/store/scopes';
import { useSettings } from '@/store/settings';
import { maskColours } from '../theme';
import { Painter } from './painter';
import { useViewport, zoomOf } from './viewport';

/** Rec. 709 luma of a colour. */
const luma = ([r, g, b]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
/** A ground on which a colour is seen: dark for light ones, light for dark ones. */
const groundFor = (colour: string): [number, number, number] => (luma(parseHex(colour)) > 0.5 ? [0.16, 0.18, 0.2] : [0.95, 0.93, 0.88]);

/** The piece as it is drawn now, and how: what is shown of it, and whether all of the photo is while its frame is set. */
export function useScene(): { piece: Piece | null; view: View; clear: boolean } {
  const shown = useBench(shownPiece);
  const { chosen, facet, held, maskView } = useBench(useShallow(({ chosen, facet, held, maskView }) => ({ chosen, facet, held, maskView })));
  const clear = isFraming(chosen, facet);
  const readyTool = useReady((s) => s.tool);
  const bare = useReady((s) => !s.withCoats) && isPhotoTab(chosen, facet);
  const piece = useMemo(() => (shown && clear ? framing(shown, readyTool) : shown), [shown, clear, readyTool]);
  const colourId = useSettings((s) => s.maskColour);
  const { region, show } = useGuards(useShallow((s) => ({ region: s.region, show: s.show })));
  const guarding = facet === 'guards' && shown?.guards !== undefined;
  const onGround = useMarking((s) => s.onGround);
  const marking = useBench(isMarking);
  const markColour = useMarkBrush((s) => s.colour);
  const view = useMemo((): View => {
    if (held) return held;
    if (marking && onGround && chosen) return { kind: 'onGround', coat: chosen, colour: groundFor(markColour) };
    if (guarding && show === 'heat') return { kind: 'heat' };
    if (maskView === 'alone' && chosen) return { kind: 'mask', coat: chosen };
    const colour = (maskColours.find((m) => m.id === colourId) ?? maskColours[0]).rgb;
    if (guarding && show === 'colour') return { kind: 'guards', region, colour };
    if (maskView === 'over' && chosen) return { kind: 'maskOver', coat: chosen, colour };
    // On the photo's own tabs the coats would hide its blemishes and casts.
    return bare ? { kind: 'photo' } : { kind: 'piece' };
  }, [held, maskView, chosen, colourId, guarding, show, region, bare, marking, onGround, markColour]);
  return { piece, view, clear };
}

/**
 * Draws the scene on a canvas whenever something of it changes, and hands what is drawn to the scopes.
 * @returns true once something has been drawn
 */
export function usePainter(canvas: RefObject<HTMLCanvasElement | null>, { piece, view, clear }: ReturnType<typeof useScene>): boolean {
  const [painter, setPainter] = useState<Painter | null>(null);
  const [drawn, setDrawn] = useState(false);
  const chosen = useBench((s) => s.chosen);
  const clipping = useScopes((s) => s.clipping && s.watchers > 0);
  const viewport = useViewport(useShallow(({ width, height, x, y, zoom }) => ({ width, height, x, y, zoom })));
  const zoom = useViewport(zoomOf);
  const density = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;

  useEffect(() => {
    let made: Painter | null = null;
    let live = true;
    const off = useScopes.subscribe((now, before) => {
      if (now.asked !== before.asked) made?.again();
    });
    void getEngine().then((engine) => {
      if (!live || !canvas.current) return;
      made = new Painter(engine, canvas.current, complain, () => setDrawn(true), measure);
      setPainter(made);
    }, complain);
    return () => {
      live = false;
      off();
      made?.close();
    };
  }, [canvas]);

  useEffect(() => {
    if (painter && piece && viewport.width > 0) painter.request({ piece, view, chosen, viewport, zoom, density, clear, clipping });
  }, [painter, piece, view, chosen, viewport, zoom, density, clear, clipping]);

  // The canvas cannot be measured when it shows only a part of what is asked for, or when clipping is painted over it.
  const shown = useBench(shownPiece);
  const watched = useScopes((s) => s.watchers > 0);
  const part = useScopes((s) => s.part);
  useEffect(() => {
    if (watched && shown && (part === 'whole' || clipping)) void measureWhole(shown, view).catch(complain);
  }, [watched, part, clipping, shown, view]);
  return drawn;
}
