/** Three rows of r, g, b factors and an offset, row by row. */
export type Matrix = [number, number, number, number, number, number, number, number, number, number, number, number];

/** feColorMatrix type="saturate" (W3C Filter Effects Level 1, §9.6); 0 is grey, 1 changes nothing. */
export function saturation(s: number): Matrix {
  return [
    0.213 + 0.787 * s,
    0.715 - 0.715 * s,
    0.072 - 0.072 * s,
    0,
    0.213 - 0.213 * s,
    0.715 + 0.285 * s,
    0.072 - 0.072 * s,
    0,
    0.213 - 0.213 * s,
    0.715 - 0.715 * s,
    0.072 + 0.928 * s,
    0,
  ];
}

/** feColorMatrix type="hueRotate"; degrees. */
export function hueRotation(degrees: number): Matrix {
  const c = Math.cos((degrees * Math.PI) / 180);
  const s = Math.sin((degrees * Math.PI) / 180);
  return [
    0.213 + c * 0.787 - s * 0.213,
    0.715 - c * 0.715 - s * 0.715,
    0.072 - c * 0.072 + s * 0.928,
    0,
    0.213 - c * 0.213 + s * 0.143,
    0.715 + c * 0.285 + s * 0.14,
    0.072 - c * 0.072 - s * 0.283,
    0,
    0.213 - c * 0.213 - s * 0.787,
    0.715 - c * 0.715 + s * 0.715,
    0.072 + c * 0.928 + s * 0.072,
    0,
  ];
}
