// Pixels pushed by hand: a field of offsets that dabs bend one after another.

/**
 * One dab on a field: a picture is read at x + U(x), U in planes `ux` and `uy` of w × h values, in units of `cell` to a value. The dab moves places by a smooth
 * map s(x) within `radius` (values) of (cx, cy), so that U'(x) = s(x) − x + U(s(x)); `hold` says where nothing moves, 0..1. It does: 0 push by (a, b) units,
 * 1 swell, 2 pinch, 3 turn by `a` radians, 4 ease back towards no offset, 5 hold still; `k` is how much, 0..1. A dab under which the picture would fold does less, or
 * nothing. `work` takes 16 bytes a value under the dab.
 */
export function nudgeDab(
  ux: usize, uy: usize, hold: usize, w: i32, h: i32, cell: f32, cx: f32, cy: f32, radius: f32, does: i32, a: f32, b: f32, k: f32, work: usize,
): void {
  const x0 = max<i32>(0, <i32>ceil<f32>(cx - radius)), x1 = min<i32>(w - 1, <i32>floor<f32>(cx + radius));
  const y0 = max<i32>(0, <i32>ceil<f32>(cy - radius)), y1 = min<i32>(h - 1, <i32>floor<f32>(cy + radius));
  if (x1 < x0 || y1 < y0) return;
  const row = x1 - x0 + 1;
  for (let j = y0; j <= y1; j++)
    for (let i = x0; i <= x1; i++) {
      const at = <usize>(j * w + i) << 2;
      const out = work + (<usize>((j - y0) * row + i - x0) << 4);
      const dx: f32 = <f32>i - cx;
      const dy: f32 = <f32>j - cy;
      const d: f32 = (dx * dx + dy * dy) / (radius * radius);
      const u: f32 = f32.load(ux + at), v: f32 = f32.load(uy + at);
      f32.store(out, u);
      f32.store(out, v, 4);
      f32.store(out, u, 8);
      f32.store(out, v, 12);
      if (d >= 1) continue;
      const bell: f32 = (1 - d) * (1 - d);
      const held: f32 = f32.load(hold + at);
      if (does == 5) {
        f32.store(hold + at, min<f32>(1, held + k * bell * (1 - held)));
        continue;
      }
      const weight: f32 = k * bell * (1 - held);
      if (does == 4) {
        f32.store(out, u * (1 - weight));
        f32.store(out, v * (1 - weight), 4);
        continue;
      }
      let sx: f32 = <f32>i, sy: f32 = <f32>j;
      if (does == 0) {
        sx -= (weight * a) / cell;
        sy -= (weight * b) / cell;
      } else if (does == 3) {
        const angle: f32 = -weight * a;
        // Small turns: second order is exact enough, and each dab turns little.
        const c: f32 = 1 - 0.5 * angle * angle, s: f32 = angle;
        sx = cx + dx * c - dy * s;
        sy = cy + dx * s + dy * c;
      } else {
        const scale: f32 = does == 1 ? 1 - 0.3 * weight : 1 + 0.3 * weight;
        sx = cx + dx * scale;
        sy = cy + dy * scale;
      }
      f32.store(out, (sx - <f32>i) * cell + between1(ux, w, h, sx, sy));
      f32.store(out, (sy - <f32>j) * cell + between1(uy, w, h, sx, sy), 4);
    }
  if (does == 5) return;
  let part: f32 = 1;
  for (let attempt = 0; attempt < 5; attempt++) {
    if (attempt == 4) part = 0;
    for (let j = y0; j <= y1; j++)
      for (let i = x0; i <= x1; i++) {
        const at = <usize>(j * w + i) << 2;
        const out = work + (<usize>((j - y0) * row + i - x0) << 4);
        const u: f32 = f32.load(out, 8), v: f32 = f32.load(out, 12);
        f32.store(ux + at, u + part * (f32.load(out) - u));
        f32.store(uy + at, v + part * (f32.load(out, 4) - v));
      }
    if (leastAbout(ux, uy, w, h, cell, x0, y0, x1, y1) >= TIGHTEST) return;
    part *= 0.5;
  }
}

/** The least determinant of I + ∇U that a dab may leave. */
const TIGHTEST: f32 = 0.05;

function leastAbout(ux: usize, uy: usize, w: i32, h: i32, cell: f32, x0: i32, y0: i32, x1: i32, y1: i32): f32 {
  let least: f32 = 1;
  const k: f32 = 0.5 / cell;
  const down = <usize>w << 2;
  for (let j = max<i32>(1, y0); j <= min<i32>(h - 2, y1); j++)
    for (let i = max<i32>(1, x0); i <= min<i32>(w - 2, x1); i++) {
      const at = <usize>(j * w + i) << 2;
      const xx: f32 = k * (f32.load(ux + at + 4) - f32.load(ux + at - 4));
      const xy: f32 = k * (f32.load(ux + at + down) - f32.load(ux + at - down));
      const yx: f32 = k * (f32.load(uy + at + 4) - f32.load(uy + at - 4));
      const yy: f32 = k * (f32.load(uy + at + down) - f32.load(uy + at - down));
      least = min<f32>(least, (1 + xx) * (1 + yy) - xy * yx);
    }
  return least;
}

// @ts-ignore: decorator
@inline
function between1(plane: usize, w: i32, h: i32, x: f32, y: f32): f32 {
  const cx: f32 = max<f32>(0, min<f32>(<f32>(w - 1), x));
  const cy: f32 = max<f32>(0, min<f32>(<f32>(h - 1), y));
  const i = min<i32>(<i32>cx, max<i32>(0, w - 2));
  const j = min<i32>(<i32>cy, max<i32>(0, h - 2));
  const fx: f32 = cx - <f32>i, fy: f32 = cy - <f32>j;
  const p = plane + (<usize>(j * w + i) << 2);
  const right: usize = w > 1 ? 4 : 0;
  const q = h > 1 ? p + (<usize>w << 2) : p;
  const top: f32 = f32.load(p) + (f32.load(p + right) - f32.load(p)) * fx;
  const low: f32 = f32.load(q) + (f32.load(q + right) - f32.load(q)) * fx;
  return top + (low - top) * fy;
}
