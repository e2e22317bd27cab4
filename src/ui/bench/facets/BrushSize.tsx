import { pieceSize } from '@/core/ready/geometry';
import { useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { Slider } from '../../kit/Slider';

/** The tip's diameter: kept in u, shown in pixels of the photo. */
export function BrushSize() {
  const { size, set } = useBrush();
  const pixels = useBench((s) => (s.piece ? Math.max(...Object.values(pieceSize(s.piece))) / 2000 : 1));
  return (
    <Slider
      label="Brush size"
      value={size}
      neutral={180}
      min={4}
      max={1000}
      step={2}
      unit="px"
      factor={pixels}
      onPreview={(v) => set({ size: v })}
      onCommit={(v) => set({ size: v })}
    />
  );
}
