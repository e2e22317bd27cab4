/** A spot: centre and radius in fractions of the long side. */
export interface Spot {
  x: number;
  y: number;
  r: number;
  value?: number;
  long?: number;
  angle?: number;
  lobes?: number;
}

/** A point of a stroke: position and half width in fractions of the long side. */
export type StrokePoint = [x: number, y: number, half: number, value: number];
