import type { Size } from './motion';

/** How many u the long side of a picture is. */
export const UNITS = 2000;

/** Pixels to one u, 1/2000 of a picture's long side, where the picture is drawn at a scale. */
export const unitOf = ({ width, height }: Size, scale = 1): number => (Math.max(width, height) * scale) / UNITS;
