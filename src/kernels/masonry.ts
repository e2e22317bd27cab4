// Bricks in a running bond: signed depth inside the nearest brick, that brick's number and the position on it.
// @ts-ignore: decorator
@inline
function fold(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/**
 * For each pixel: `inside` the signed distance (fractions of the long side, positive inside) to the rounded box of its brick, `id` the
 * brick's number, `px`, `py` the position from its centre. Planes `u`, `v` give bent coordinates in fractions of the long side.
 * `table` holds per brick (dx, dy, rotation, left, right, top and bottom joint factors, corner) f32; rows × perRow bricks. Every other row is
 * shifted by `bond` bricks; with `headers` it holds twice as many, of half the length.
 */
export function bricks(
  inside: usize, id: usize, px: usize, py: usize, total: i32, u: usize, v: usize, rows: i32, perRow: i32,
  rowHeight: f32, stretcher: f32, joint: f32, table: usize, bond: f32, headers: i32,
): void {
  for (let i = 0; i < total; i++) {
    const at = <usize>i << 2;
    const x = f32.load(u + at);
    const y = f32.load(v + at);
    let best: f32 = -1;
    let who = 0;
    let bx: f32 = 0;
    let by: f32 = 0;
    const row0 = <i32>floor<f32>(y / rowHeight);
    // Neighbours count only near a joint: no brick is displaced by a third of its height.
    const down: f32 = y / rowHeight - <f32>row0;
    for (let r = down < 0.35 ? row0 - 1 : row0, end = down > 0.65 ? row0 + 1 : row0; r <= end; r++) {
      const rr = fold(r, rows);
      const odd = (rr & 1) != 0;
      const halves = odd && headers != 0;
      const inRow = halves ? 2 * perRow : perRow;
      const brickLength: f32 = halves ? stretcher * 0.5 : stretcher;
      const shift: f32 = odd ? bond : 0;
      // Rows before this one: with headers every pair of rows holds three times as many bricks as a row of stretchers.
      const first = headers != 0 ? (rr >> 1) * 3 * perRow + (odd ? perRow : 0) : rr * perRow;
      const col0 = <i32>floor<f32>(x / brickLength - shift);
      const right: f32 = x / brickLength - shift - <f32>col0;
      for (let c = right < 0.35 ? col0 - 1 : col0, stop = right > 0.65 ? col0 + 1 : col0; c <= stop; c++) {
        const k = first + fold(c, inRow);
        const t = table + (<usize>k << 5);
        const cx: f32 = (<f32>c + 0.5 + shift) * brickLength + f32.load(t);
        const cy: f32 = (<f32>r + 0.5) * rowHeight + f32.load(t + 4);
        const rot = f32.load(t + 8);
        const dx = x - cx + rot * (y - cy);
        const dy = y - cy - rot * (x - cx);
        const jx = joint * 0.5 * f32.load(t + (dx < 0 ? 12 : 16));
        const jy = joint * 0.5 * f32.load(t + (dy < 0 ? 20 : 24));
        const corner = f32.load(t + 28);
        const qx = abs<f32>(dx) - (brickLength * 0.5 - jx) + corner;
        const qy = abs<f32>(dy) - (rowHeight * 0.5 - jy) + corner;
        const ox = max<f32>(qx, 0);
        const oy = max<f32>(qy, 0);
        const d = corner - sqrt<f32>(ox * ox + oy * oy) - min<f32>(max<f32>(qx, qy), 0);
        if (d > best) {
          best = d;
          who = k;
          bx = dx;
          by = dy;
        }
      }
    }
    f32.store(inside + at, best);
    f32.store(id + at, <f32>who);
    f32.store(px + at, bx);
    f32.store(py + at, by);
  }
}

/** dst = table[id]: spreads a value per item over the pixels that belong to it. */
export function lookUp(dst: usize, id: usize, table: usize, count: i32): void {
  for (let i = 0; i < count; i++) {
    f32.store(dst + (<usize>i << 2), f32.load(table + (<usize>(<i32>f32.load(id + (<usize>i << 2))) << 2)));
  }
}
