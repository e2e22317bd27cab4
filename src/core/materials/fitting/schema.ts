import * as z from 'zod';
import { share, toggle } from '../../schema';

const side = (label: string) => share(label, 0, { max: 0.4, step: 0.001 });

/** How a picture is made to fit as a material. The file itself stays as it is. */
export const fittingSchema = z
  .object({
    left: side('Trim left'),
    top: side('Trim top'),
    right: side('Trim right'),
    bottom: side('Trim bottom'),
    even: share('Even lighting', 0, { help: 'Takes out what is brighter on one side, or in the middle, of a scan.' }),
    seamless: toggle('Tile without a seam', false, {
      help: 'Its edges are joined along a line where they differ least; it becomes a little smaller.',
    }),
    grey: toggle('Drop its colour', false),
  })
  .strict();
export type Fitting = z.output<typeof fittingSchema>;
export const neutralFitting: Fitting = fittingSchema.parse({});

/** How much of a side two edges share when they are joined. */
const OVERLAP = 0.12;

interface Part {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** What is left of a picture of that size after trimming, in whole pixels; at least one. */
export function trimmed(width: number, height: number, { left, top, right, bottom }: Fitting): Part {
  const x = Math.min(width - 1, Math.round(left * width));
  const y = Math.min(height - 1, Math.round(top * height));
  return {
    x,
    y,
    width: Math.max(1, width - x - Math.round(right * width)),
    height: Math.max(1, height - y - Math.round(bottom * height)),
  };
}

/** Pixels of a side that are joined with the opposite one. */
export const overlapOf = (side: number): number => Math.min(side - 1, Math.max(1, Math.round(side * OVERLAP)));

/** The size of a picture once it is made to fit. */
export function fittedSize(width: number, height: number, fitting: Fitting): { width: number; height: number } {
  const part = trimmed(width, height, fitting);
  if (!fitting.seamless) return { width: part.width, height: part.height };
  return { width: part.width - overlapOf(part.width), height: part.height - overlapOf(part.height) };
}

export const isNeutral = (fitting: Fitting): boolean =>
  !fitting.seamless && !fitting.grey && [fitting.left, fitting.top, fitting.right, fitting.bottom, fitting.even].every((v) => v === 0);
