import { Slider } from '../../kit/Slider';

interface TipSizeProps {
  label: string;
  /** Diameter in u. */
  size: number;
  neutral: number;
  max: number;
  step: number;
  /** Pixels of the photo to one u. */
  pixels: number;
  help?: string;
  onSize(size: number): void;
}

/** A tip's diameter: kept in u, shown in pixels of the photo. */
export function TipSize({ size, pixels, onSize, ...rest }: TipSizeProps) {
  return <Slider {...rest} value={size} min={4} unit="px" factor={pixels} onPreview={onSize} onCommit={onSize} />;
}
