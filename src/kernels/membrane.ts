// Membrane interpolation: Laplace's equation over a masked area, solved by multigrid. Mask bytes: 0 known, 1 sought, 2 left out of the
// equation. Beyond the box nothing is known, so a value there has fewer neighbours (the picture's own edge).

/** Marks what lies within `radius` of a path of `count` points (x, y as f32, in pixels of the box, centres at .5) with `value`. */
export function markPath(mask: usize, w: i32, h: i32, points: usize, count: i32, radius: f32, value: i32): void {
  const last = max<i32>(1, count - 1);
  for (let k = 0; k < last; k++) {
    const p = points + (<usize>k << 3);
    const q = k + 1 < count ? p + 8 : p;
    const ax: f32 = f32.load(p);
    const ay: f32 = f32.load(p, 4);
    const bx: f32 = f32.load(q);
    const by: f32 = f32.load(q, 4);
    const dx: f32 = bx - ax;
    const dy: f32 = by - ay;
    const length: f32 = max<f32>(1e-9, dx * dx + dy * dy);
    const x0 = max<i32>(0, <i32>floor<f32>(min<f32>(ax, bx) - radius));
    const x1 = min<i32>(w - 1, <i32>ceil<f32>(max<f32>(ax, bx) + radius));
    const y0 = max<i32>(0, <i32>floor<f32>(min<f32>(ay, by) - radius));
    const y1 = min<i32>(h - 1, <i32>ceil<f32>(max<f32>(ay, by) + radius));
    for (let j = y0; j <= y1; j++) {
      for (let i = x0; i <= x1; i++) {
        const px: f32 = <f32>i + 0.5 - ax;
        const py: f32 = <f32>j + 0.5 - ay;
        const t: f32 = max<f32>(0, min<f32>(1, (px * dx + py * dy) / length));
        const ex: f32 = px - t * dx;
        const ey: f32 = py - t * dy;
        if (ex * ex + ey * ey <= radius * radius) store<u8>(mask + <usize>(j * w + i), <u8>value);
      }
    }
  }
}

// @ts-ignore: decorator
@inline
function at(x: i32, y: i32, w: i32, h: i32): usize {
  return <usize>(max<i32>(0, min<i32>(h - 1, y)) * w + max<i32>(0, min<i32>(w - 1, x))) << 2;
}

/**
 * One channel of an RGBA8 picture (w × h) over a box: what is known less what lies (dx, dy) from it, 0..1; 0 where sought. The source's edge
 * is extended.
 */
export function sourceGap(picture: usize, w: i32, h: i32, x: i32, y: i32, bw: i32, bh: i32, dx: i32, dy: i32, channel: i32, mask: usize, out: usize): void {
  const c = <usize>channel;
  for (let j = 0; j < bh; j++)
    for (let i = 0; i < bw; i++) {
      const k = <usize>(j * bw + i);
      let v: f32 = 0;
      if (load<u8>(mask + k) == 0) {
        const here = <i32>load<u8>(picture + at(x + i, y + j, w, h) + c);
        const there = <i32>load<u8>(picture + at(x + i + dx, y + j + dy, w, h) + c);
        v = <f32>(here - there) * <f32>(1.0 / 255.0);
      }
      f32.store(out + (k << 2), v);
    }
}

/** Adds the source to what was sought, still as values 0..1. */
export function addSource(picture: usize, w: i32, h: i32, x: i32, y: i32, bw: i32, bh: i32, dx: i32, dy: i32, channel: i32, mask: usize, out: usize): void {
  for (let j = 0; j < bh; j++)
    for (let i = 0; i < bw; i++) {
      const k = <usize>(j * bw + i);
      if (load<u8>(mask + k) != 1) continue;
      const there = <f32>load<u8>(picture + at(x + i + dx, y + j + dy, w, h) + <usize>channel);
      f32.store(out + (k << 2), f32.load(out + (k << 2)) + there * <f32>(1.0 / 255.0));
    }
}

/** Writes what was sought into one channel of the picture. */
export function putSought(picture: usize, w: i32, x: i32, y: i32, bw: i32, bh: i32, channel: i32, mask: usize, values: usize): void {
  for (let j = 0; j < bh; j++)
    for (let i = 0; i < bw; i++) {
      const k = <usize>(j * bw + i);
      if (load<u8>(mask + k) != 1) continue;
      const v: f32 = max<f32>(0, min<f32>(1, f32.load(values + (k << 2)))) * 255;
      store<u8>(picture + (<usize>((y + j) * w + x + i) << 2) + <usize>channel, <u8>nearest<f32>(v));
    }
}

/** Sweeps of Gauss and Seidel over the two colours of the board: each sought value becomes the mean of its neighbours plus `right` / their number. */
export function relax(u: usize, right: usize, mask: usize, w: i32, h: i32, sweeps: i32): void {
  for (let s = 0; s < 2 * sweeps; s++) {
    for (let j = 0; j < h; j++) {
      for (let i = (j + s) & 1; i < w; i += 2) {
        const k = <usize>(j * w + i);
        if (load<u8>(mask + k) != 1) continue;
        const p = u + (k << 2);
        let sum: f32 = f32.load(right + (k << 2));
        let n: f32 = 0;
        if (i > 0 && load<u8>(mask + k - 1) != 2) { sum += f32.load(p - 4); n += 1; }
        if (i + 1 < w && load<u8>(mask + k + 1) != 2) { sum += f32.load(p + 4); n += 1; }
        if (j > 0 && load<u8>(mask + k - <usize>w) != 2) { sum += f32.load(p - (<usize>w << 2)); n += 1; }
        if (j + 1 < h && load<u8>(mask + k + <usize>w) != 2) { sum += f32.load(p + (<usize>w << 2)); n += 1; }
        if (n > 0) f32.store(p, sum / n);
      }
    }
  }
}

/**
 * The equation of the error on a grid half as fine (⌈w/2⌉ × ⌈h/2⌉): its right side is the sum of the four residuals, its mask sought where
 * all four are, its first guess 0. Returns the largest residual.
 */
export function coarsen(u: usize, right: usize, mask: usize, w: i32, h: i32, cu: usize, cright: usize, cmask: usize): f32 {
  const cw = (w + 1) >> 1;
  const ch = (h + 1) >> 1;
  let most: f32 = 0;
  for (let J = 0; J < ch; J++) {
    for (let I = 0; I < cw; I++) {
      let sum: f32 = 0;
      let sought = 0;
      let out = 0;
      let cells = 0;
      for (let b = 0; b < 2; b++) {
        for (let a = 0; a < 2; a++) {
          const i = 2 * I + a;
          const j = 2 * J + b;
          if (i >= w || j >= h) continue;
          cells++;
          const k = <usize>(j * w + i);
          const m = load<u8>(mask + k);
          if (m == 2) out++;
          if (m != 1) continue;
          sought++;
          const p = u + (k << 2);
          const here: f32 = f32.load(p);
          let r: f32 = f32.load(right + (k << 2));
          if (i > 0 && load<u8>(mask + k - 1) != 2) r += f32.load(p - 4) - here;
          if (i + 1 < w && load<u8>(mask + k + 1) != 2) r += f32.load(p + 4) - here;
          if (j > 0 && load<u8>(mask + k - <usize>w) != 2) r += f32.load(p - (<usize>w << 2)) - here;
          if (j + 1 < h && load<u8>(mask + k + <usize>w) != 2) r += f32.load(p + (<usize>w << 2)) - here;
          sum += r;
          most = max<f32>(most, abs<f32>(r));
        }
      }
      const K = <usize>(J * cw + I);
      store<u8>(cmask + K, <u8>(sought == cells ? 1 : out == cells ? 2 : 0));
      f32.store(cright + (K << 2), sought == cells ? sum : 0);
      f32.store(cu + (K << 2), 0);
    }
  }
  return most;
}

/** Adds the coarse grid's error to the fine values, bilinearly, where they are sought. */
export function refine(u: usize, mask: usize, w: i32, h: i32, cu: usize): void {
  const cw = (w + 1) >> 1;
  const ch = (h + 1) >> 1;
  for (let j = 0; j < h; j++) {
    const J = j >> 1;
    const J2 = max<i32>(0, min<i32>(ch - 1, (j & 1) == 0 ? J - 1 : J + 1));
    for (let i = 0; i < w; i++) {
      const k = <usize>(j * w + i);
      if (load<u8>(mask + k) != 1) continue;
      const I = i >> 1;
      const I2 = max<i32>(0, min<i32>(cw - 1, (i & 1) == 0 ? I - 1 : I + 1));
      const near: f32 = f32.load(cu + (<usize>(J * cw + I) << 2));
      const across: f32 = f32.load(cu + (<usize>(J * cw + I2) << 2));
      const down: f32 = f32.load(cu + (<usize>(J2 * cw + I) << 2));
      const far: f32 = f32.load(cu + (<usize>(J2 * cw + I2) << 2));
      const p = u + (k << 2);
      f32.store(p, f32.load(p) + 0.5625 * near + 0.1875 * (across + down) + 0.0625 * far);
    }
  }
}
