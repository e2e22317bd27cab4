import { useEffect, useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import { create } from 'zustand';
import type { Candidate } from '@/core/piece/candidates';
import type { Piece } from '@/core/piece/schema';
import { cellRegion, drawCells } from '@/store/contact';
import { useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { SANS_MEDIUM, useColours } from '../theme';
import { words } from '../words';

/** Two ways of a coat that are wiped against each other on the picture. */
export const useWipe = create<{ wipe: { coat: string; pair: Candidate[] } | null }>(() => ({ wipe: null }));

/** Over the picture: two ways over each other, with an edge between them that is dragged. */
export function Wipe({ place }: { place: CSSProperties }) {
  const wipe = useWipe((s) => s.wipe);
  const piece = useBench((s) => s.piece);
  return wipe && piece ? <WipePair key={wipe.pair.map((one) => one.key).join()} piece={piece} {...wipe} place={place} /> : null;
}

function WipePair({ piece, coat, pair, place }: { piece: Piece; coat: string; pair: Candidate[]; place: CSSProperties }) {
  const c = useColours();
  const [at, setAt] = useState(0.5);
  const left = useRef<HTMLCanvasElement>(null);
  const right = useRef<HTMLCanvasElement>(null);
  const keys = pair.map((one) => one.key).join();
  useEffect(() => {
    const stop = new AbortController();
    const { region, scale } = cellRegion(piece, { kind: 'whole' }, 700);
    const show = (key: string, image: ImageData) => {
      const canvas = (key === pair[0].key ? left : right).current;
      if (!canvas) return;
      canvas.width = image.width;
      canvas.height = image.height;
      canvas.getContext('2d')?.putImageData(image, 0, 0);
    };
    void drawCells(piece, coat, pair, region, scale, (keys) => keys[0], show, stop.signal).catch(complain);
    return () => stop.abort();
    // Keyed by the pair's keys, because the objects are new at every render.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [piece, coat, keys]);
  const move = (e: PointerEvent<HTMLDivElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    setAt(Math.min(1, Math.max(0, (e.clientX - box.left) / box.width)));
  };
  return (
    <div style={{ position: 'absolute', zIndex: 1, ...place }}>
      <div
        role="slider"
        tabIndex={0}
        aria-label={words.wipe.edgeBetween(pair[0].name, pair[1].name)}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(at * 100)}
        onPointerDown={(e) => {
          e.stopPropagation();
          e.currentTarget.setPointerCapture(e.pointerId);
          move(e);
        }}
        onPointerMove={(e) => e.buttons > 0 && move(e)}
        onKeyDown={(e) => {
          const step = { ArrowLeft: -0.05, ArrowRight: 0.05 }[e.key];
          if (!step) return;
          e.preventDefault();
          setAt((v) => Math.min(1, Math.max(0, v + step)));
        }}
        style={frame}
      >
        <canvas ref={right} aria-hidden style={{ width: '100%', display: 'block' }} />
        <canvas ref={left} aria-hidden style={{ ...over, clipPath: `inset(0 ${(1 - at) * 100}% 0 0)` }} />
        <div style={{ ...edge, left: `${at * 100}%` }} />
        {pair.map((one, i) => (
          <span key={one.key} style={{ ...name, [i === 0 ? 'left' : 'right']: 6, background: c.chrome, color: c.ink, fontFamily: SANS_MEDIUM }}>
            {one.name}
          </span>
        ))}
      </div>
    </div>
  );
}

const frame: CSSProperties = { position: 'relative', touchAction: 'none', cursor: 'ew-resize', overflow: 'hidden', width: '100%', height: '100%' };
const over: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%' };
/** The line between two pictures. */
export const edge: CSSProperties = {
  position: 'absolute',
  top: 0,
  bottom: 0,
  width: 2,
  marginLeft: -1,
  background: '#fff',
  boxShadow: '0 0 0 1px #0008',
};
const name: CSSProperties = { position: 'absolute', top: 6, padding: '2px 8px', fontSize: 13, borderRadius: 2 };
