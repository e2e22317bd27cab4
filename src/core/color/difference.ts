import type { Triple } from './srgb';

const rad = Math.PI / 180;

/** CIEDE2000 colour difference of two CIE Lab colours (Sharma, Wu & Dalal 2005), with kL = kC = kH = 1. */
export function ciede2000([L1, a1, b1]: Triple, [L2, a2, b2]: Triple): number {
  const meanC = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const c7 = meanC ** 7;
  const g = 0.5 * (1 - Math.sqrt(c7 / (c7 + 25 ** 7)));
  const ap1 = (1 + g) * a1;
  const ap2 = (1 + g) * a2;
  const C1 = Math.hypot(ap1, b1);
  const C2 = Math.hypot(ap2, b2);
  const angle = (b: number, a: number) => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / rad + 360) % 360);
  const h1 = angle(b1, ap1);
  const h2 = angle(b2, ap2);
  let dh = h2 - h1;
  let sum = h1 + h2;
  if (C1 * C2 === 0) dh = 0;
  else {
    if (Math.abs(h1 - h2) > 180) sum += sum < 360 ? 360 : -360;
    if (dh > 180) dh -= 360;
    else if (dh < -180) dh += 360;
    sum /= 2;
  }
  const dL = L2 - L1;
  const dC = C2 - C1;
  const dH = 2 * Math.sqrt(C1 * C2) * Math.sin((dh / 2) * rad);
  const L = (L1 + L2) / 2;
  const C = (C1 + C2) / 2;
  const T =
    1 -
    0.17 * Math.cos((sum - 30) * rad) +
    0.24 * Math.cos(2 * sum * rad) +
    0.32 * Math.cos((3 * sum + 6) * rad) -
    0.2 * Math.cos((4 * sum - 63) * rad);
  const SL = 1 + (0.015 * (L - 50) ** 2) / Math.sqrt(20 + (L - 50) ** 2);
  const SC = 1 + 0.045 * C;
  const SH = 1 + 0.015 * C * T;
  const RT = -2 * Math.sqrt(C ** 7 / (C ** 7 + 25 ** 7)) * Math.sin(60 * rad * Math.exp(-(((sum - 275) / 25) ** 2)));
  return Math.sqrt((dL / SL) ** 2 + (dC / SC) ** 2 + (dH / SH) ** 2 + RT * (dC / SC) * (dH / SH));
}
