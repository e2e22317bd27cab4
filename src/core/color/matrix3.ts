/** A 3 × 3 matrix, row by row. */
export type Matrix3 = [number, number, number, number, number, number, number, number, number];

export function multiply3(a: Matrix3, b: Matrix3): Matrix3 {
  const out = [];
  for (let r = 0; r < 3; r++) for (let c = 0; c < 3; c++) out.push(a[3 * r] * b[c] + a[3 * r + 1] * b[3 + c] + a[3 * r + 2] * b[6 + c]);
  return out as Matrix3;
}

export const transform3 = (m: Matrix3, [x, y, z]: [number, number, number]): [number, number, number] => [
  m[0] * x + m[1] * y + m[2] * z,
  m[3] * x + m[4] * y + m[5] * z,
  m[6] * x + m[7] * y + m[8] * z,
];

/** @throws RangeError when the matrix has no inverse. */
export function inverse3([a, b, c, d, e, f, g, h, i]: Matrix3): Matrix3 {
  const A = e * i - f * h;
  const B = f * g - d * i;
  const C = d * h - e * g;
  const det = a * A + b * B + c * C;
  if (!(Math.abs(det) > 1e-14)) throw new RangeError('The map has no inverse.');
  return [A, c * h - b * i, b * f - c * e, B, a * i - c * g, c * d - a * f, C, b * g - a * h, a * e - b * d].map((v) => v / det) as Matrix3;
}
