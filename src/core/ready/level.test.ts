import { numbers } from '@/testing/machine';
import { boxOf, cropOfBox, editingCrop, fits, pull, reach, turnByLine } from './editing';
import { findLevel } from './level';
import { neutralReady, type Ready } from './schema';

const W = 480;
const H = 320;

/** A scene that a function of turned coordinates draws, softened by taking nine samples a pixel. */
function scene(turn: number, value: (x: number, y: number) => number, seed = 1): Float32Array {
  const random = numbers(seed);
  const c = Math.cos((turn * Math.PI) / 180);
  const s = Math.sin((turn * Math.PI) / 180);
  return Float32Array.from({ length: W * H }, (_, i) => {
    let sum = 0;
    for (let k = 0; k < 9; k++) {
      const x = (i % W) + (k % 3) / 3 - W / 2;
      const y = Math.floor(i / W) + Math.floor(k / 3) / 3 - H / 2;
      // Turned clockwise: what is level in the scene slopes down to the right.
      sum += value(x * c + y * s, y * c - x * s);
    }
    return sum / 9 + 6 * random();
  });
}
const horizon = (x: number, y: number) => (y < 20 + 1.5 * Math.cos(x / 11) ? 170 + y * 0.1 : 80 + 20 * Math.sin(x * 0.2) * Math.sin(y * 0.31));
const house = (x: number, y: number) => {
  if (Math.abs(x) > 150 || y < -90 || y > 90) return 190;
  const [u, v] = [((x + 150) % 60) - 30, ((y + 90) % 60) - 30];
  return Math.abs(u) < 12 && Math.abs(v) < 18 ? 60 : 130;
};
/** Round forms strewn about: nothing level and nothing upright. */
function pebbles(): Float32Array {
  const random = numbers(21);
  const out = new Float32Array(W * H).fill(170);
  for (let k = 0; k < 160; k++) {
    const [cx, cy, r, tone] = [random() * W, random() * H, 6 + 14 * random(), 40 + 120 * random()];
    for (let y = Math.max(0, Math.floor(cy - r)); y < Math.min(H, cy + r); y++)
      for (let x = Math.max(0, Math.floor(cx - r)); x < Math.min(W, cx + r); x++) {
        const cover = Math.min(1, Math.max(0, r - Math.hypot(x + 0.5 - cx, y + 0.5 - cy)));
        out[y * W + x] += (tone - out[y * W + x]) * cover;
      }
  }
  return out.map((v) => v + 6 * random());
}

describe('automatic level', () => {
  it.each([-9, -3.4, -0.8, 0, 1.7, 6, 12])('finds the turn of a horizon and of a house turned by %d degrees within half a degree', (turn) => {
    for (const value of [horizon, house]) {
      const found = findLevel(scene(turn, value), { width: W, height: H });
      expect(found).not.toBeNull();
      expect(Math.abs((found?.turn ?? 99) - turn)).toBeLessThan(0.5);
    }
  });

  it('turns nothing where there are no lines', () => {
    expect(findLevel(pebbles(), { width: W, height: H })).toBeNull();
    expect(
      findLevel(
        scene(0, () => 128),
        { width: W, height: H },
      ),
    ).toBeNull();
    const noise = numbers(8);
    expect(
      findLevel(
        Float32Array.from({ length: W * H }, () => 255 * noise()),
        { width: W, height: H },
      ),
    ).toBeNull();
  });

  it('a line drawn along something level or upright says the turn', () => {
    expect(turnByLine(0, [0, 0], [100, 5])).toBeCloseTo(2.86, 2);
    expect(turnByLine(1, [100, 5], [0, 0])).toBeCloseTo(3.86, 2);
    expect(turnByLine(0, [10, 0], [5, 100])).toBeCloseTo(2.86, 2);
    expect(turnByLine(0, [0, 0], [3, 100])).toBeCloseTo(-1.72, 2);
  });
});

describe('setting the frame by hand', () => {
  const photo = { width: 600, height: 400 };
  const ready: Ready = { ...neutralReady, crop: { x: 0.3, y: 0.3, w: 0.4, h: 0.4, turn: 8 } };

  it('shows all of the photo, the frame upright in it, and reads it back', () => {
    const all = editingCrop(photo, ready);
    expect(all.w).toBeGreaterThan(1);
    const box = boxOf(photo, ready);
    expect(box.right - box.left).toBeCloseTo(240, 6);
    const back = cropOfBox(photo, ready, box);
    for (const key of ['x', 'y', 'w', 'h', 'turn'] as const) expect(back[key]).toBeCloseTo(ready.crop[key], 9);
  });

  it('goes only as far as there is picture', () => {
    const box = boxOf(photo, ready);
    const wide = { ...box, left: box.left - 900, right: box.right + 900 };
    const most = reach(photo, ready, box, wide);
    expect(fits(photo, ready, cropOfBox(photo, ready, most))).toBe(true);
    expect(most.right - most.left).toBeGreaterThan(300);
    expect(reach(photo, ready, box, { ...box, left: box.left + 20 })).toEqual({ ...box, left: box.left + 20 });
  });

  it('pulls corners and sides, keeping a ratio about the opposite corner', () => {
    const box = { left: 100, top: 100, right: 300, bottom: 200 };
    expect(pull(box, 'se', 20, -10, null)).toEqual({ left: 100, top: 100, right: 320, bottom: 190 });
    expect(pull(box, 'nw', 500, 0, null).left).toBe(284);
    const kept = pull(box, 'se', 40, 0, 2);
    expect([kept.left, kept.top, kept.right, kept.bottom]).toEqual([100, 100, 340, 220]);
    const side = pull(box, 'e', 60, 0, 2);
    expect(side.bottom - side.top).toBeCloseTo(130, 9);
    expect((side.top + side.bottom) / 2).toBeCloseTo(150, 9);
  });
});
