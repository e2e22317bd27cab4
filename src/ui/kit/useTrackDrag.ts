import { useEffect, useRef, type PointerEvent } from 'react';

/** A finger on a track drags after this many px sideways, and sooner if it began on the thumb; until then the sheet may still scroll. */
const BEGINS = 8;
const BEGINS_ON_THUMB = 2;
/** Half of what counts as the thumb, in px: a drag that starts there begins at once. */
const GRAB = 22;
/** A pointer further than this above or below the track moves the value at a quarter of the pace, and beyond twice that at a sixteenth. */
const FINE_FROM = 56;
/** Width of the thumb: its middle travels that much less than the track is wide. */
export const THUMB = 20;

/** How far the value moves for each pixel of the pointer, by its distance from the track. */
export function paceAt(distance: number): number {
  const far = Math.abs(distance);
  return far < FINE_FROM ? 1 : far < 2 * FINE_FROM ? 1 / 4 : 1 / 16;
}

interface Track {
  min: number;
  max: number;
  step: number;
  value: number;
  /** A value while it is dragged, and the pace if it is a fine one. */
  onDrag(value: number, pace: number): void;
  onEnd(value: number): void;
  /** The pointer was taken away, by a sheet that scrolls for instance: nothing has changed. */
  onCancel(): void;
  /** A press that dragged nothing. */
  onTap?(value: number): void;
}

/**
 * Pointer handlers for a horizontal track. Vertical movement is the sheet's (`touch-action: pan-y` on the element): a finger drags after 8 px sideways,
 * or at once on the thumb, and one that goes up or down first drags nothing. The thumb stays under the pointer; away from the track it moves finer.
 */
export function useTrackDrag(track: Track) {
  const now = useRef(track);
  useEffect(() => void (now.current = track));
  const drag = useRef<{
    x: number;
    y: number;
    lastX: number;
    middle: number;
    raw: number;
    isOnThumb: boolean;
    state: 'waits' | 'drags' | 'swipes';
  } | null>(null);
  const rounded = (raw: number) => {
    const { min, max, step } = now.current;
    // Rounded, because binary fractions would leave values like 0.7000000000000001.
    return Number(Math.min(max, Math.max(min, min + Math.round((raw - min) / step) * step)).toFixed(6));
  };
  const perPixel = (e: PointerEvent<HTMLElement>) => {
    const { min, max } = now.current;
    return (max - min) / Math.max(1, e.currentTarget.getBoundingClientRect().width - THUMB);
  };
  return {
    onPointerDown(e: PointerEvent<HTMLElement>) {
      if (e.button > 0 || drag.current) return;
      const box = e.currentTarget.getBoundingClientRect();
      const { min, value } = now.current;
      const thumb = box.left + THUMB / 2 + (value - min) / perPixel(e);
      const isOnThumb = Math.abs(e.clientX - thumb) <= GRAB;
      const at = min + (e.clientX - box.left - THUMB / 2) * perPixel(e);
      const isMouse = e.pointerType !== 'touch';
      drag.current = {
        x: e.clientX,
        y: e.clientY,
        lastX: e.clientX,
        middle: box.top + box.height / 2,
        raw: isOnThumb || !isMouse ? value : at,
        isOnThumb,
        state: isMouse ? 'drags' : 'waits',
      };
      try {
        e.currentTarget.setPointerCapture(e.pointerId);
      } catch {
        // A pointer that has gone already, or is made by a program: its movements are followed while it is over the track.
      }
      if (isMouse && !isOnThumb) now.current.onDrag(rounded(at), 1);
    },
    onPointerMove(e: PointerEvent<HTMLElement>) {
      const d = drag.current;
      if (!d) return;
      if (d.state === 'swipes') return;
      if (d.state === 'waits') {
        const [across, down] = [Math.abs(e.clientX - d.x), Math.abs(e.clientY - d.y)];
        if (down >= BEGINS && down > across) d.state = 'swipes';
        if (d.state === 'swipes' || across < (d.isOnThumb ? BEGINS_ON_THUMB : BEGINS)) return;
        d.state = 'drags';
        const { min } = now.current;
        // Off the thumb, the thumb goes where the finger is.
        if (d.isOnThumb) d.raw += (e.clientX - d.lastX) * perPixel(e);
        else d.raw = min + (e.clientX - e.currentTarget.getBoundingClientRect().left - THUMB / 2) * perPixel(e);
      } else if (e.clientX === d.lastX) return;
      else d.raw += (e.clientX - d.lastX) * perPixel(e) * paceAt(e.clientY - d.middle);
      d.lastX = e.clientX;
      now.current.onDrag(rounded(d.raw), paceAt(e.clientY - d.middle));
    },
    onPointerUp(e: PointerEvent<HTMLElement>) {
      const d = drag.current;
      drag.current = null;
      if (!d) return;
      const { min, onEnd, onTap, onCancel } = now.current;
      if (d.state === 'drags') onEnd(rounded(d.raw));
      else if (onTap && Math.abs(e.clientY - d.y) < BEGINS)
        onTap(rounded(min + (e.clientX - e.currentTarget.getBoundingClientRect().left - THUMB / 2) * perPixel(e)));
      else onCancel();
    },
    onPointerCancel() {
      if (!drag.current) return;
      drag.current = null;
      now.current.onCancel();
    },
  };
}
