// Boards cut lengthwise from a trunk: growth rings as a distance to a wobbling axis.
import { exp1, exp4, ln4, smooth1 } from './math';
import { line } from './noise';

// @ts-ignore: decorator
@inline
function pow1(x: f32, p: f32): f32 {
  if (x <= 0) return 0;
  return f32x4.extract_lane(exp4(f32x4.mul(ln4(f32x4.splat(x)), f32x4.splat(p))), 0);
}

/**
 * Late wood (0..1) and knots (0..1, dark rim near 1) at every pixel. `boards` holds (left edge, pith x, pith depth, ring spacing,
 * knot 1 x, y, r, knot 2 x, y, r, seed, right edge) f32 per board, lengths in fractions of the long side; `px`, `py` are the places, `wobble` is a noise
 * plane in rings; `id` receives the board and `gap` the distance to the nearest board edge.
 */
export function timber(
  late: usize, knot: usize, id: usize, gap: usize, total: i32, px: usize, py: usize, wobble: usize, boards: usize, count: i32,
): void {
  for (let i = 0; i < total; i++) {
    const at = <usize>i << 2;
    const x = f32.load(px + at);
    const y = f32.load(py + at);
    let b = 0;
    for (let k = 0; k < count; k++) if (x >= f32.load(boards + <usize>k * 48)) b = k;
    const p = boards + <usize>b * 48;
    const left = f32.load(p);
    const right = f32.load(p + 44);
    const seed = <i32>f32.load(p + 40);
    let xx = x;
    let dark: f32 = 0;
    for (let k = 0; k < 2; k++) {
      const q = p + 16 + <usize>k * 12;
      const r = f32.load(q + 8);
      if (r <= 0) continue;
      const dx = x - f32.load(q);
      const dy = (y - f32.load(q + 4)) * 0.75;
      const d = sqrt<f32>(dx * dx + dy * dy);
      const pull = d / (2.3 * r);
      xx -= 0.95 * dx * exp1(-pull * pull);
      const edge = d / r + 0.06 * line(d * 300, seed + 40 + k, 0);
      if (edge < 1.25) {
        const ring: f32 = 5.5 * edge - floor<f32>(5.5 * edge);
        const body: f32 = (<f32>0.45 + <f32>0.3 * ring) * (<f32>1 - smooth1(0.9, 1.12, edge));
        const rim = exp1(-(edge - 0.97) * (edge - 0.97) / 0.006);
        dark = max<f32>(dark, max<f32>(body, rim));
      }
    }
    const spacing = f32.load(p + 12);
    const X = xx - left - f32.load(p + 4);
    const Z = f32.load(p + 8) + 0.012 * line(y * 1.7, seed + 5, 0);
    let rho: f32 = sqrt<f32>(X * X + Z * Z) / spacing + 0.16 * f32.load(wobble + at);
    rho += 0.55 * line(0.55 * rho, seed + 1, 0) + 0.3 * line(1.7 * rho, seed + 2, 0);
    const whole = floor<f32>(rho);
    const f: f32 = rho - whole;
    const rise = f < 0.82 ? pow1(f / 0.82, 2.2) : 1 - smooth1(0.82, 1, f);
    f32.store(late + at, rise * (0.825 + 0.175 * line(whole * 0.71, seed + 3, 0)));
    f32.store(knot + at, dark);
    f32.store(id + at, <f32>b);
    f32.store(gap + at, min<f32>(x - left, right - x));
  }
}
