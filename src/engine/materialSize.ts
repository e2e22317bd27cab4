import { materialById } from '../core/materials';

const SIDES = [256, 512, 1024, 2048];
/** A material is made this much finer than it will be seen, so that a preview equals the reduced export. */
const FINER = 1.25;

/**
 * Side at which a material is made when it will be seen `pixels` long. One with lines finer than a pixel is made at 1024 no better than
 * at 512 (see `Material.fine`), so it goes straight to the largest.
 */
export function materialSide(pixels: number, fine = false): number {
  const side = SIDES.find((s) => s >= pixels * FINER) ?? SIDES[SIDES.length - 1];
  return fine && side === 1024 ? 2048 : side;
}

/** Sides of a material: square, or in the shape of the photo with the short side lengthened to a multiple of 16. */
export function materialSize(id: string, side: number, aspect: number): { width: number; height: number } {
  if (materialById(id).shape === 'square') return { width: side, height: side };
  const short = Math.max(16, Math.ceil((side * Math.min(aspect, 1 / aspect)) / 16) * 16);
  return aspect >= 1 ? { width: side, height: short } : { width: short, height: side };
}
