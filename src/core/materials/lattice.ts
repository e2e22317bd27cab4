const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b));

/**
 * Integers (a, b) without a common factor, near f·(cos, sin): a lattice turned by them repeats after one sheet, and
 * key = i + t·j mod n (n = a² + b²) names its cells so that opposite sides agree.
 */
export function turnedLattice(f: number, angle: number): { a: number; b: number; n: number; t: number } {
  const x = Math.max(1, Math.round(Math.abs(f * Math.cos(angle))));
  const y = Math.max(1, Math.round(Math.abs(f * Math.sin(angle))));
  let best = { a: x, b: y, cost: Infinity };
  for (let a = Math.max(1, x - 2); a <= x + 2; a++) {
    for (let b = Math.max(1, y - 2); b <= y + 2; b++) {
      const cost = Math.abs(Math.hypot(a, b) - f) + 0.3 * Math.hypot(a - x, b - y);
      if (gcd(a, b) === 1 && cost < best.cost) best = { a, b, cost };
    }
  }
  const { a, b } = best;
  const n = a * a + b * b;
  // t = −a · b⁻¹ mod n, by the extended Euclidean algorithm.
  let [r0, r1, s0, s1] = [n, b % n, 0, 1];
  while (r1 > 0) {
    const q = Math.floor(r0 / r1);
    [r0, r1, s0, s1] = [r1, r0 - q * r1, s1, s0 - q * s1];
  }
  const inverse = ((s0 % n) + n) % n;
  const t = Number((((BigInt(-a) * BigInt(inverse)) % BigInt(n)) + BigInt(n)) % BigInt(n));
  return { a, b, n, t };
}
