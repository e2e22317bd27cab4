import { pieceSize } from '@/core/ready/geometry';
import { useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { TipSize } from './TipSize';
import { unitOf } from '@/core/image/unit';
import { words } from '../../words';

export function BrushSize({ store = useBrush }: { store?: typeof useBrush }) {
  const { size, set } = store();
  const pixels = useBench((s) => (s.piece ? unitOf(pieceSize(s.piece)) : 1));
  return (
    <TipSize
      label={words.brushSize.brushSize}
      size={size}
      neutral={store.getInitialState().size}
      max={1000}
      step={2}
      pixels={pixels}
      onSize={(v) => set({ size: v })}
    />
  );
}
