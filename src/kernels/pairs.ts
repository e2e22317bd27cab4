// Matting by sampling: the colour in front and the colour behind of each pixel of an uncertain band.

/** Steps by which samples are sorted by lightness. */
const STEPS = 1024;

// @ts-ignore: decorator
@inline
function stepOf(r: usize, g: usize, b: usize, p: usize): i32 {
  const light = (f32.load(r + p) + f32.load(g + p) + f32.load(b + p)) * <f32>(STEPS / 3.0);
  return max<i32>(0, min<i32>(STEPS - 1, <i32>light));
}

/**
 * Lists the pixels at which `chosen` is at least a half, as x + 65536 y (i32), sorted by lightness, so that neighbours in the list are alike.
 * `out` has room for all of them, `counts` for 1025 i32.
 * @returns how many there are
 */
export function listByLight(r: usize, g: usize, b: usize, chosen: usize, w: i32, h: i32, out: usize, counts: usize): i32 {
  const count = w * h;
  memory.fill(counts, 0, (STEPS + 1) << 2);
  for (let i = 0; i < count; i++) {
    const p = <usize>i << 2;
    if (f32.load(chosen + p) < 0.5) continue;
    const c = counts + (<usize>(stepOf(r, g, b, p) + 1) << 2);
    store<i32>(c, load<i32>(c) + 1);
  }
  for (let k = 1; k <= STEPS; k++) {
    const c = counts + (<usize>k << 2);
    store<i32>(c, load<i32>(c) + load<i32>(c - 4));
  }
  const all = load<i32>(counts + (STEPS << 2));
  for (let i = 0; i < count; i++) {
    const p = <usize>i << 2;
    if (f32.load(chosen + p) < 0.5) continue;
    const c = counts + (<usize>stepOf(r, g, b, p) << 2);
    const at = load<i32>(c);
    store<i32>(c, at + 1);
    store<i32>(out + (<usize>at << 2), (i % w) | ((i / w) << 16));
  }
  return all;
}

// @ts-ignore: decorator
@inline
function next(state: u32): u32 {
  state ^= state << 13;
  state ^= state >> 17;
  return state ^ (state << 5);
}

/** How much of the colour in front (f) there is at p, over that behind (b). */
// @ts-ignore: decorator
@inline
function shareAt(r: usize, g: usize, blue: usize, p: usize, f: usize, b: usize): f32 {
  const b0 = f32.load(r + b), b1 = f32.load(g + b), b2 = f32.load(blue + b);
  const f0 = f32.load(r + f) - b0, f1 = f32.load(g + f) - b1, f2 = f32.load(blue + f) - b2;
  const square = f0 * f0 + f1 * f1 + f2 * f2;
  if (square < 1e-8) return 0.5;
  const along = (f32.load(r + p) - b0) * f0 + (f32.load(g + p) - b1) * f1 + (f32.load(blue + p) - b2) * f2;
  return max<f32>(0, min<f32>(1, along / square));
}

/** Distance of the colour at p from the line between two samples, in levels of 255. */
// @ts-ignore: decorator
@inline
function missAt(r: usize, g: usize, blue: usize, p: usize, f: usize, b: usize): f32 {
  const a = shareAt(r, g, blue, p, f, b);
  const rest: f32 = 1 - a;
  const d0 = f32.load(r + p) - a * f32.load(r + f) - rest * f32.load(r + b);
  const d1 = f32.load(g + p) - a * f32.load(g + f) - rest * f32.load(g + b);
  const d2 = f32.load(blue + p) - a * f32.load(blue + f) - rest * f32.load(blue + b);
  return 255 * sqrt<f32>(d0 * d0 + d1 * d1 + d2 * d2);
}

// @ts-ignore: decorator
@inline
function placeOf(sample: i32, w: i32): usize {
  return <usize>((sample >> 16) * w + (sample & 0xffff)) << 2;
}

// @ts-ignore: decorator
@inline
function spanTo(sample: i32, x: i32, y: i32): f32 {
  const dx = <f32>((sample & 0xffff) - x);
  const dy = <f32>((sample >> 16) - y);
  return sqrt<f32>(dx * dx + dy * dy);
}

/**
 * For each pixel of the band `unknown` the best pair of samples, one in front and one behind, by random search and from neighbour to neighbour (He,
 * Rhemann, Rother, Tang & Sun, A Global Sampling Method for Alpha Matting, 2011): the pair's colours lie in a line with the pixel's, and the samples not
 * much further away than the nearest (`reachFront`, `reachBehind`: planes of that distance). Writes how much is in front (`share`) and how far that is
 * trusted (`trust`, 0..1). `front` and `behind` are lists as above, `pairs` two planes of i32 and `miss` one of f32 to work in.
 */
export function pairColours(
  r: usize, g: usize, b: usize, unknown: usize, w: i32, h: i32, front: usize, fronts: i32, behind: usize, behinds: i32,
  reachFront: usize, reachBehind: usize, pairs: usize, miss: usize, share: usize, trust: usize, rounds: i32,
): void {
  const n = w * h;
  const second = pairs + (<usize>n << 2);
  let state: u32 = 0x9e3779b9;
  for (let i = 0; i < n; i++) {
    const p = <usize>i << 2;
    state = next(state);
    store<i32>(pairs + p, <i32>(state % <u32>fronts));
    state = next(state);
    store<i32>(second + p, <i32>(state % <u32>behinds));
    f32.store(miss + p, 1e9);
  }
  for (let round = 0; round < rounds; round++) {
    const back = (round & 1) == 1;
    const before = back ? 1 : -1;
    for (let k = 0; k < n; k++) {
      const i = back ? n - 1 - k : k;
      const p = <usize>i << 2;
      if (f32.load(unknown + p) < 0.5) continue;
      const x = i % w, y = i / w;
      const nearFront: f32 = 1 / (f32.load(reachFront + p) + 1);
      const nearBehind: f32 = 1 / (f32.load(reachBehind + p) + 1);
      let f = load<i32>(pairs + p), s = load<i32>(second + p);
      let best = f32.load(miss + p);
      // 0 to 3: the pairs of the neighbours that came before; then a search about the best, at every step within half as far.
      let wide: f32 = 1;
      for (let t = best < 1e8 ? 0 : -1; t < 14; t++) {
        let tf = f, ts = s;
        if (t >= 0 && t < 4) {
          const dx = t == 0 ? before : t == 1 ? -before : t == 2 ? 0 : before;
          const dy = t == 0 ? 0 : before;
          if (x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue;
          const q = <usize>(i + dy * w + dx) << 2;
          if (f32.load(unknown + q) < 0.5) continue;
          tf = load<i32>(pairs + q);
          ts = load<i32>(second + q);
        } else if (t >= 4) {
          state = next(state);
          tf += <i32>((<f32>(state >> 8) * <f32>(2.0 / 16777216.0) - 1) * max<f32>(1.5, wide * <f32>fronts));
          state = next(state);
          ts += <i32>((<f32>(state >> 8) * <f32>(2.0 / 16777216.0) - 1) * max<f32>(1.5, wide * <f32>behinds));
          tf = max<i32>(0, min<i32>(fronts - 1, tf));
          ts = max<i32>(0, min<i32>(behinds - 1, ts));
          wide *= 0.5;
        }
        const pf = load<i32>(front + (<usize>tf << 2)), pb = load<i32>(behind + (<usize>ts << 2));
        const far = spanTo(pf, x, y) * nearFront + spanTo(pb, x, y) * nearBehind;
        if (far >= best) continue;
        const cost = far + missAt(r, g, b, p, placeOf(pf, w), placeOf(pb, w));
        if (cost >= best) continue;
        best = cost;
        f = tf;
        s = ts;
      }
      store<i32>(pairs + p, f);
      store<i32>(second + p, s);
      f32.store(miss + p, best);
    }
  }
  for (let i = 0; i < n; i++) {
    const p = <usize>i << 2;
    if (f32.load(unknown + p) < 0.5) continue;
    const f = placeOf(load<i32>(front + (<usize>load<i32>(pairs + p) << 2)), w);
    const s = placeOf(load<i32>(behind + (<usize>load<i32>(second + p) << 2)), w);
    f32.store(share + p, shareAt(r, g, b, p, f, s));
    const d0 = f32.load(r + f) - f32.load(r + s), d1 = f32.load(g + f) - f32.load(g + s), d2 = f32.load(b + f) - f32.load(b + s);
    const apart = sqrt<f32>(d0 * d0 + d1 * d1 + d2 * d2) * <f32>(255.0 / 60.0);
    const c = f32.load(miss + p) * <f32>(1 / 3.0);
    // exp(−c), nearly.
    f32.store(trust + p, min<f32>(1, apart) / (1 + c * (1 + c * (0.5 + c * <f32>(1 / 6.0)))));
  }
}
