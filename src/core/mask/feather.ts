/** Standard deviation, in pixels, of a feather of so many u: from nothing to all over about its width. */
export const featherSigma = (feather: number, unit: number): number => (feather * unit) / 3;
