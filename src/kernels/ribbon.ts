// Strokes of a loaded tool, one over another: brush, knife, and leaves, which lie over each other in the same way.
import { leastTurn } from './draw';
import { clamp1, cos1, exp1, sin1, smooth1 } from './math';

/** Floats of one stroke; see `Ribbon` in core/materials/ribbons.ts. */
const WORDS: i32 = 24;
const BANK: i32 = 256;

/** Smooth one-dimensional noise from a bank of sixteen periodic rows, at u samples. */
// @ts-ignore: decorator
@inline
function noise(bank: usize, row: i32, u: f32): f32 {
  const f = floor<f32>(u);
  const i = <i32>f;
  const at = bank + (<usize>((row & 15) * BANK) << 2);
  const a = f32.load(at + (<usize>(i & (BANK - 1)) << 2));
  const b = f32.load(at + (<usize>((i + 1) & (BANK - 1)) << 2));
  return a + (b - a) * (u - f);
}

/** atan to 2e-4; Abramowitz & Stegun 4.4.47 folded about 1. */
// @ts-ignore: decorator
@inline
function atan1(z: f32): f32 {
  const big = abs<f32>(z) > 1;
  const x: f32 = big ? 1 / z : z;
  const q = x * x;
  const r: f32 = x * (<f32>0.9998660 + q * (<f32>-0.3302995 + q * (<f32>0.1801410 + q * (<f32>-0.0851330 + q * <f32>0.0208351))));
  return big ? (z > 0 ? <f32>1.5707963 : <f32>-1.5707963) - r : r;
}

/** What shows by less than this through the paint above it is not worked out. */
const HIDDEN: f32 = 0.1;

/** Strokes that turn by less than this, in radians, are worked out without circles. */
const SLIGHT: f32 = 0.25;

/** Entries of a stroke's profile from side to side: bristles and light, in turn. */
const PROFILE: i32 = 128;

/**
 * Lays strokes in their order on a height, a tone and a warmth; what a stroke covers keeps a share of its height. They are worked out from the
 * last to the first, so that what is hidden is left out: `through` is how much of what lies beneath still counts in height, `clear` in tone,
 * both 1 to begin with. `profile` has room for 2 × (128 + 1) f32. The planes are w × h pixels of a sheet W × H, the first of them (x0, y0).
 */
export function ribbons(
  height: usize, tone: usize, warmth: usize, through: usize, clear: usize, w: i32, h: i32, x0: i32, y0: i32, W: i32, H: i32, table: usize,
  count: i32, bank: usize, profile: usize, wrap: i32,
): void {
  for (let k = count - 1; k >= 0; k--) {
    const t = table + <usize>(k * WORDS * 4);
    const frequency = f32.load(t + 44);
    const row = <i32>f32.load(t + 68);
    for (let i = 0; i <= PROFILE; i++) {
      const e: f32 = (<f32>i / <f32>PROFILE) * <f32>2.5;
      f32.store(profile + <usize>(i * 8), noise(bank, row, e * frequency * 4) + <f32>0.45 * noise(bank, row + 1, e * frequency * 9));
      f32.store(profile + <usize>(i * 8 + 4), noise(bank, row + 4, e * frequency * <f32>1.7));
    }
    ribbon(height, tone, warmth, through, clear, w, h, x0, y0, W, H, t, bank, profile, wrap);
  }
}

function ribbon(
  height: usize, tone: usize, warmth: usize, through: usize, clear: usize, w: i32, h: i32, x0: i32, y0: i32, W: i32, H: i32, t: usize, bank: usize,
  profile: usize, wrap: i32,
): void {
  const x = f32.load(t);
  const y = f32.load(t + 4);
  const tx = f32.load(t + 8);
  const ty = f32.load(t + 12);
  const bend = f32.load(t + 16);
  const length = f32.load(t + 20);
  const half = f32.load(t + 24);
  const straight = abs<f32>(bend) < 1e-6;
  // A slight bend is a parabola: it is off by at most a five-hundredth of the length to the side, and two hundredths along it.
  const slight = abs<f32>(bend) * length < SLIGHT;
  const centre: f32 = straight ? 0 : 1 / bend;
  const sign: f32 = bend < 0 ? -1 : 1;
  // The box round the bent stroke.
  let left: f32 = x;
  let right: f32 = x;
  let top: f32 = y;
  let bottom: f32 = y;
  for (let i = 1; i <= 4; i++) {
    const s = (length * <f32>i) / 4;
    const along: f32 = straight ? s : sin1(s * bend) * centre;
    const off: f32 = straight ? 0 : (1 - cos1(s * bend)) * centre;
    const px = x + tx * along - ty * off;
    const py = y + ty * along + tx * off;
    left = min<f32>(left, px);
    right = max<f32>(right, px);
    top = min<f32>(top, py);
    bottom = max<f32>(bottom, py);
  }
  const margin = half * 1.12 + (abs<f32>(bend) * length * length) / 128 + 2;
  const i0 = <i32>floor<f32>(left - margin);
  const i1 = <i32>ceil<f32>(right + margin);
  const j0 = <i32>floor<f32>(top - margin);
  const j1 = <i32>ceil<f32>(bottom + margin);
  const isLeaf = f32.load(t + 84) > 0;
  const keep = f32.load(t + 32);
  const warm = f32.load(t + 56);
  const perHalf: f32 = 1 / half;
  const perLength: f32 = 1 / length;
  const limit: f32 = 1.1 + perHalf;
  // To which sides the arc leaves its tangent.
  const sagitta: f32 = 0.5 * bend * length * length * 1.25;
  const low: f32 = min<f32>(0, sagitta) - half * limit - 1;
  const high: f32 = max<f32>(0, sagitta) + half * limit + 1;
  const firstX = wrap ? leastTurn(x0, i1, W) : 0;
  const firstY = wrap ? leastTurn(y0, j1, H) : 0;
  if (i0 + firstX * W >= x0 + w || j0 + firstY * H >= y0 + h) return;
  for (let turnY = firstY * H; j0 + turnY < y0 + h; turnY += H) {
  for (let j = max<i32>(j0, y0 - turnY), end = min<i32>(j1, y0 + h - 1 - turnY); j <= end; j++) {
    const row = (<usize>(j + turnY - y0) * <usize>w) << 2;
    const dy: f32 = <f32>j + 0.5 - y;
    // Where a row crosses the strip round the bent stroke, and round its length.
    let from = i0;
    let to = i1;
    if (abs<f32>(ty) > 0.02) {
      const p = (dy * tx - low) / ty + x;
      const q = (dy * tx - high) / ty + x;
      from = max<i32>(from, <i32>floor<f32>(min<f32>(p, q)) - 1);
      to = min<i32>(to, <i32>ceil<f32>(max<f32>(p, q)));
    }
    if (abs<f32>(tx) > 0.02) {
      const p = (-length * 0.12 - 2 - dy * ty) / tx + x;
      const q = (length * 1.12 + 2 - dy * ty) / tx + x;
      from = max<i32>(from, <i32>floor<f32>(min<f32>(p, q)) - 1);
      to = min<i32>(to, <i32>ceil<f32>(max<f32>(p, q)));
    }
    for (let turnX = firstX * W; from + turnX < x0 + w; turnX += W) {
    for (let i = max<i32>(from, x0 - turnX), last = min<i32>(to, x0 + w - 1 - turnX); i <= last; i++) {
      const at = row + (<usize>(i + turnX - x0) << 2);
      if (f32.load(through + at) < HIDDEN) continue;
      const dx: f32 = <f32>i + 0.5 - x;
      const u = dx * tx + dy * ty;
      const v = dy * tx - dx * ty;
      let s: f32 = u;
      let off: f32 = v;
      if (slight) {
        const k: f32 = 1 / (1 - bend * v);
        off = v - 0.5 * bend * u * u * k;
        s = u * k;
      } else if (!straight) {
        const down = centre - v;
        off = centre - sign * sqrt<f32>(u * u + down * down);
        if (abs<f32>(off) * perHalf > limit) continue;
        s = atan1(u / (down * sign)) / abs<f32>(bend);
      }
      const e = off * perHalf;
      s *= perLength;
      if (abs<f32>(e) > limit || s < -0.1 || s > 1.1) continue;
      const made = isLeaf ? leaf(t, bank, s, e, perHalf) : stroke(t, bank, profile, s, e, perHalf);
      const cover = f32x4.extract_lane(made, 0);
      if (cover <= 0.004) continue;
      const under = f32.load(through + at);
      const seen = f32.load(clear + at) * cover;
      f32.store(height + at, f32.load(height + at) + under * f32x4.extract_lane(made, 1) * cover);
      f32.store(through + at, under * (1 - cover + keep * cover));
      f32.store(tone + at, f32.load(tone + at) + seen * f32x4.extract_lane(made, 2));
      f32.store(warmth + at, f32.load(warmth + at) + seen * warm);
      f32.store(clear + at, f32.load(clear + at) - seen);
    }
    if (!wrap) break;
    }
  }
  if (!wrap) break;
  }
}

// @ts-ignore: decorator
@inline
function bump(d: f32, width: f32): f32 {
  const q = d / width;
  return exp1(-q * q);
}

/** What a stroke or leaf is at one pixel: how far it covers, its height, its tone. */
// @ts-ignore: decorator
@inline
function mark(cover: f32, high: f32, light: f32): v128 {
  return f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(cover), 1, high), 2, light);
}

// @ts-ignore: decorator
@inline
function stroke(t: usize, bank: usize, profile: usize, s: f32, e: f32, soft: f32): v128 {
  const row = <i32>f32.load(t + 68);
  const shape = f32.load(t + 24) / f32.load(t + 20);
  // Bristles wander a little together.
  const place = clamp1((e + <f32>0.05 * noise(bank, row + 5, s * 22) + <f32>1.25) * <f32>0.4) * <f32>(PROFILE - 1);
  const cell = <i32>place;
  const part = place - <f32>cell;
  const at = profile + <usize>(cell * 8);
  const bristle = f32.load(at) * (1 - part) + f32.load(at + 8) * part;
  const edge = abs<f32>(e) + <f32>0.06 * noise(bank, row + (e > 0 ? 3 : 7), s * 64);
  const along = s + f32.load(t + 80) * e * shape;
  const end = f32.load(t + 76);
  const begin = f32.load(t + 72);
  let cover: f32 = 1;
  if (edge > 0.9 - soft) cover *= 1 - smooth1(0.97 - soft, 0.97 + soft * 0.6, edge);
  if (s < 0.3) cover *= smooth1(-0.01, begin, along - <f32>0.22 * shape * e * e - begin * <f32>0.4 * bristle);
  const tail = along + end * (<f32>0.5 * bristle + <f32>0.4 * e * e);
  if (tail > 1 - end) cover *= 1 - smooth1(1 - end, 1, tail);
  const dry = f32.load(t + 64);
  if (dry > 0) {
    const left = dry * (<f32>0.25 + <f32>0.85 * s);
    cover *= smooth1(left - 0.25, left + 0.12, <f32>0.62 + <f32>0.6 * bristle + <f32>0.3 * noise(bank, row + 6, s * 130 + e * 60));
  }
  if (cover <= 0.004) return mark(0, 0, 0);
  const thick = f32.load(t + 28);
  const ridge = f32.load(t + 36) * thick;
  let high: f32 = thick * (<f32>0.5 + f32.load(t + 48) * bristle);
  if (edge > 0.7) high += ridge * bump(edge - 0.93, f32.load(t + 40)) * max<f32>(0, <f32>0.6 + <f32>0.9 * noise(bank, row + 2, s * 26));
  if (along > 0.85) high += ridge * <f32>0.7 * bump(along - 0.97, <f32>0.02 + f32.load(t + 40) * shape) * max<f32>(0, <f32>0.5 + bristle);
  const light = f32.load(t + 52) + f32.load(t + 60) * (f32.load(at + 4) * (1 - part) + f32.load(at + 12) * part);
  return mark(clamp1(cover), high, light);
}

// @ts-ignore: decorator
@inline
function leaf(t: usize, bank: usize, s: f32, e: f32, soft: f32): v128 {
  const row = <i32>f32.load(t + 68);
  if (s < -0.1 || s > 1) return mark(0, 0, 0);
  const stalk = bump(e, 0.035 + soft * 0.5);
  if (s < 0) {
    return mark(stalk > 0.3 ? stalk : 0, f32.load(t + 28) * 0.5, f32.load(t + 52) - 0.3);
  }
  // Widest a little before the middle, drawn out to a point.
  const full = max<f32>(0.012, sin1(3.14159265 * sqrt<f32>(s) * (0.94 + 0.06 * s)) * (1 - 0.25 * s));
  if (abs<f32>(e) > full * 1.15) return mark(0, 0, 0);
  const edge = abs<f32>(e) / full + 0.06 * noise(bank, row, s * 260);
  const cover: f32 = 1 - smooth1(1 - (soft * 1.2) / full, 1 + (soft * 0.4) / full, edge);
  if (cover <= 0.004) return mark(0, 0, 0);
  const veins = f32.load(t + 44);
  const q = s * veins - abs<f32>(e) * veins * 0.32 + 0.3 * noise(bank, row + 2, s * 12) + (e > 0 ? <f32>0.5 : 0);
  const side = bump(q - floor<f32>(q) - 0.5, 0.06) * (1 - 0.7 * clamp1(edge));
  const net: f32 = 1.4 * noise(bank, row + 3, q * 40 + e * 300) * noise(bank, row + 4, e * 260 - s * 90);
  const vein = max<f32>(side, stalk);
  const high: f32 = f32.load(t + 28) * (0.5 + 0.5 * (1 - edge * edge) * 0.9 - 0.32 * vein + 0.05 * net);
  const light = f32.load(t + 52) + f32.load(t + 60) * (noise(bank, row + 5, s * 18 + e * 9) + 0.22 * net - smooth1(0.75, 1.05, edge) * 0.8) + 0.35 * vein;
  return mark(clamp1(cover), high, light);
}
