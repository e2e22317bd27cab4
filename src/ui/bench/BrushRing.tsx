import type { CSSProperties } from 'react';
import { create } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import { UNITS, unitOf } from '@/core/image/unit';
import { marksOf } from '@/core/piece/marks';
import { pieceSize } from '@/core/ready/geometry';
import { chosenCoat, shownPiece, useBench } from '@/store/bench';
import { useArming } from '@/store/arming';
import { brushFor, isMarking, useBrush, useNudgeBrush } from '@/store/brush';
import { isCutting } from '@/store/cutting';
import { isNudging } from '@/store/nudging';
import { useGuards } from '@/store/guards';
import { useReady } from '@/store/ready';
import type { ToolPoint } from './gestures';
import { useViewport, zoomOf } from './viewport';

/** Where the pointer is over the picture. It is a separate store because only the ring follows it. */
export const useHover = create<{ point: ToolPoint | null }>(() => ({ point: null }));

/** The brush's tip around the pointer, and its softer ring if it has one. */
export function BrushRing() {
  const point = useHover((s) => s.point);
  const { chosen, facet } = useBench(useShallow((s) => ({ chosen: s.chosen, facet: s.facet })));
  const file = useBench((s) => (s.piece ? Math.max(s.piece.photo.width, s.piece.photo.height) : 1));
  const unit = useBench((s) => {
    const piece = shownPiece(s);
    return piece ? unitOf(pieceSize(piece)) : 1;
  });
  const marking = useBench(isMarking);
  const nudging = useBench(isNudging);
  const cutting = useBench(isCutting);
  const use = useBench((s) => marksOf(chosenCoat(s))?.use);
  const brush = (nudging ? useNudgeBrush : marking && use ? brushFor({ use }) : useBrush)(
    useShallow(({ size, does, tip, angle, ring }) => ({ size, does, tip, angle, ring })),
  );
  const { region, does } = useGuards(useShallow((s) => ({ region: s.region, does: s.does })));
  const spotSize = useReady((s) => s.spotSize);
  const zoom = useViewport(zoomOf);
  const isArmed = useArming((s) => s.isArmed);
  const guarding = facet === 'guards' && region !== null;
  const spotting = chosen === null && facet === 'spots';
  const masking = (facet === 'where' && chosen !== null) || marking || nudging || cutting;
  if (!point || !isArmed || !(guarding || spotting || masking)) return null;
  const size = spotting ? (spotSize / UNITS) * file * zoom : brush.size * unit * zoom;
  const box = (width: number, height: number) => ({ left: point.px - width / 2, top: point.py - height / 2, width, height });
  const flat = masking && brush.tip === 'flat';
  const puts = (guarding ? does : brush.does) === 'put';
  return (
    <>
      <div
        aria-hidden
        style={{
          ...ringStyle,
          ...box(size, flat ? size / 3 : size),
          transform: flat ? `rotate(${brush.angle}deg)` : undefined,
          borderStyle: puts ? 'dashed' : 'solid',
        }}
      />
      {masking && brush.ring ? <div aria-hidden style={{ ...ringStyle, ...box(2 * size, 2 * size), borderStyle: 'dotted' }} /> : null}
    </>
  );
}

const ringStyle: CSSProperties = {
  position: 'absolute',
  borderRadius: '50%',
  border: '1.5px solid #fff',
  boxShadow: '0 0 0 1px rgba(0,0,0,0.55)',
  boxSizing: 'border-box',
  pointerEvents: 'none',
};
