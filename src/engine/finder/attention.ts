/**
 * Mesh points that the attention mesh sees anew in crops of its own, in the order of its outputs (Grishchenko et al., Attention Mesh, 2020; the order
 * is that of the published model).
 */
const lips: readonly number[] = [
  61, 146, 91, 181, 84, 17, 314, 405, 321, 375, 291, 185, 40, 39, 37, 0, 267, 269, 270, 409, 78, 95, 88, 178, 87, 14, 317, 402, 318, 324, 308, 191,
  80, 81, 82, 13, 312, 311, 310, 415, 76, 77, 90, 180, 85, 16, 315, 404, 320, 307, 306, 184, 74, 73, 72, 11, 302, 303, 304, 408, 62, 96, 89, 179, 86,
  15, 316, 403, 319, 325, 292, 183, 42, 41, 38, 12, 268, 271, 272, 407,
];
const rightEye: readonly number[] = [
  33, 7, 163, 144, 145, 153, 154, 155, 133, 246, 161, 160, 159, 158, 157, 173, 130, 25, 110, 24, 23, 22, 26, 112, 243, 247, 30, 29, 27, 28, 56, 190,
  226, 31, 228, 229, 230, 231, 232, 233, 244, 113, 225, 224, 223, 222, 221, 189, 35, 124, 46, 53, 52, 65, 143, 111, 117, 118, 119, 120, 121, 128, 245,
  156, 70, 63, 105, 66, 107, 55, 193,
];
const leftEye: readonly number[] = [
  263, 249, 390, 373, 374, 380, 381, 382, 362, 466, 388, 387, 386, 385, 384, 398, 359, 255, 339, 254, 253, 252, 256, 341, 463, 467, 260, 259, 257,
  258, 286, 414, 446, 261, 448, 449, 450, 451, 452, 453, 464, 342, 445, 444, 443, 442, 441, 413, 265, 353, 276, 283, 282, 295, 372, 340, 346, 347,
  348, 349, 350, 357, 465, 383, 300, 293, 334, 296, 336, 285, 417,
];

/** Orders of the points of the parts. */
export const partOrders = { lips, rightEye, leftEye };

/** What the attention mesh gives: three numbers a point of the mesh, two a point of the parts, five points an iris (its middle, then around it). */
export interface AttentionOutput {
  mesh: Float32Array;
  lips: Float32Array;
  /** Eyes of the person: `right` is to the left in the picture. */
  eyes: { right: Float32Array; left: Float32Array };
  irises: { right: Float32Array; left: Float32Array };
}

/** The mesh with its eyes, brows and lips where the parts see them. */
export function refinedMesh({ mesh, lips: lipPoints, eyes }: AttentionOutput): Float32Array {
  const out = Float32Array.from(mesh);
  const put = (points: Float32Array, order: readonly number[]) =>
    order.forEach((m, i) => {
      out[3 * m] = points[2 * i];
      out[3 * m + 1] = points[2 * i + 1];
    });
  put(eyes.right, rightEye);
  put(eyes.left, leftEye);
  put(lipPoints, lips);
  return out;
}
