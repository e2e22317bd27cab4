import { pieceSize } from '@/core/ready/geometry';
import { useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { TipSize } from './TipSize';

export function BrushSize() {
  const { size, set } = useBrush();
  const pixels = useBench((s) => (s.piece ? Math.max(...Object.values(pieceSize(s.piece))) / 2000 : 1));
  return <TipSize label="Brush size" size={size} neutral={180} max={1000} step={2} pixels={pixels} onSize={(v) => set({ size: v })} />;
}
