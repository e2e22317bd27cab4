// Lattices of cells: keys that fold onto a period, and gradients from hashes.

/** Gradient component in −1..1 from one half of a hash. */
// @ts-ignore: decorator
@inline
export function gx(h: u32): f32 {
  return <f32>(h & 0xffff) * <f32>(2.0 / 65535.0) - 1;
}

// @ts-ignore: decorator
@inline
export function gy(h: u32): f32 {
  return <f32>(h >>> 16) * <f32>(2.0 / 65535.0) - 1;
}

// @ts-ignore: decorator
@inline
export function modulo(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/** Lattice key: n > 0 folds a lattice turned by integers (a, b) with n = a² + b² onto itself (t·b ≡ −a mod n); px, py fold a straight one. */
// @ts-ignore: decorator
@inline
export function key(i: i32, j: i32, n: i32, t: i32, px: i32, py: i32): i32 {
  if (n > 0) {
    const r = (<i64>modulo(j, n) * <i64>t + <i64>i) % <i64>n;
    return <i32>(r < 0 ? r + <i64>n : r);
  }
  const u = px > 0 ? modulo(i, px) : i;
  const v = py > 0 ? modulo(j, py) : j;
  return u * 0x3c6ef35f + v * 0x19660d;
}

/** k mod n where k is seldom far from 0..n: two comparisons instead of a division. */
// @ts-ignore: decorator
@inline
export function near(k: i32, n: i32): i32 {
  if (k >= n) k -= n;
  else if (k < 0) k += n;
  return k >= 0 && k < n ? k : modulo(k, n);
}
