import { useEffect, useRef, type CSSProperties } from 'react';
import { usePicking } from '@/store/picking';
import { SANS_MEDIUM, useColours } from '../theme';

const SIDE = 96;
/** CSS pixels of the picture across the loupe. */
const SEEN = 16;

/** An enlarged round of what lies under the pointer, ringed by its mean colour; above the finger, not under it. */
export function Loupe() {
  const c = useColours();
  const { asked, loupe } = usePicking();
  const glass = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const to = glass.current?.getContext('2d');
    const from = document.querySelector<HTMLCanvasElement>('[data-testid="picture"] canvas');
    const around = from?.parentElement?.getBoundingClientRect();
    const box = from?.getBoundingClientRect();
    if (!to || !from || !box || !around || !loupe) return;
    const k = from.width / box.width;
    const x = (loupe.x + around.left - box.left - SEEN / 2) * k;
    const y = (loupe.y + around.top - box.top - SEEN / 2) * k;
    to.imageSmoothingEnabled = false;
    to.clearRect(0, 0, SIDE, SIDE);
    to.drawImage(from, x, y, SEEN * k, SEEN * k, 0, 0, SIDE, SIDE);
  }, [loupe]);
  if (!asked) return null;
  return (
    <>
      <div role="status" style={{ ...words, background: c.chrome, color: c.ink, borderColor: c.line, fontFamily: SANS_MEDIUM }}>
        {asked.words}
      </div>
      {loupe ? (
        <div
          aria-hidden
          style={{ ...round, left: loupe.x - SIDE / 2 - 6, top: loupe.y > 150 ? loupe.y - SIDE - 44 : loupe.y + 32, borderColor: loupe.hex }}
        >
          <canvas ref={glass} width={SIDE} height={SIDE} />
          <div style={cross} />
        </div>
      ) : null}
    </>
  );
}

const words: CSSProperties = {
  position: 'absolute',
  left: '50%',
  top: 12,
  transform: 'translateX(-50%)',
  padding: '8px 14px',
  border: '1px solid',
  borderRadius: 2,
  fontSize: 15,
  whiteSpace: 'nowrap',
  pointerEvents: 'none',
};
const round: CSSProperties = {
  position: 'absolute',
  width: SIDE,
  height: SIDE,
  borderRadius: '50%',
  overflow: 'hidden',
  border: '6px solid',
  boxShadow: '0 0 0 1px #0008, inset 0 0 0 1px #0008',
  pointerEvents: 'none',
};
const cross: CSSProperties = {
  position: 'absolute',
  left: SIDE / 2 - 8,
  top: SIDE / 2 - 8,
  width: 16,
  height: 16,
  border: '1px solid #fff',
  outline: '1px solid #000a',
};
