import type { InputSpec } from '../graph/node';
import { share } from '../schema';

/** Regions that stay finer in what simplifies a picture: those of a face, and what was painted by hand on the guards. */
const FACE = { eyes: 1, brows: 1, lips: 1, teeth: 1, nostrils: 1, skin: 0.9, ears: 0.7, painted: 1 };

/** How much finer faces stay. */
export const keepField = share('Keep faces finer', 0, { help: 'Also what you paint on the guard “Painted by hand”.' });

/** The faces of the photo, where they are asked for. */
export const faceInput = ({ keep }: { keep: number }): Record<string, InputSpec> =>
  keep > 0 ? { faces: { framed: { need: 'guard', amounts: FACE } } } : {};
