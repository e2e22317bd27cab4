/** A small picture as values 0..1, four a pixel. */
export interface Small {
  width: number;
  height: number;
  pixels: Float32Array;
}

/** What can be trimmed of each side, in fractions of it, and whether the border is dark, light or coloured. */
export interface Border {
  left: number;
  top: number;
  right: number;
  bottom: number;
  tone: 'dark' | 'light' | 'plain';
}

/** A border counts as plain when its values differ from their median by no more than this. */
const TOLERANCE = 0.07;
/** What lies inside must differ from it by at least this,*/
const STEP = 0.11;
/** at once, on this share of the lines that cross the edge, */
const SHARP = 0.6;
/** and no side is trimmed by more. */
const MOST = 0.15;

/**
 * Looks for a plain border round a scan: lines along an edge that are nearly of one colour, with a step behind them. A little askew or frayed is
 * allowed for. Null when no side has one, or when the picture is plain all over. (Our own rule; common practice, no source.)
 */
export function findBorder(small: Small): Border | null {
  const sides = (['left', 'top', 'right', 'bottom'] as const).map((side) => depthOf(small, side));
  if (sides.every((s) => s.depth === 0)) return null;
  const found = sides.filter((s) => s.depth > 0);
  const mean = found.reduce((sum, s) => sum + s.luma, 0) / found.length;
  const [left, top, right, bottom] = sides.map((s) => Math.round(s.depth * 1e4) / 1e4);
  return { left, top, right, bottom, tone: mean < 0.25 ? 'dark' : mean > 0.85 ? 'light' : 'plain' };
}

function depthOf({ width, height, pixels }: Small, side: 'left' | 'top' | 'right' | 'bottom'): { depth: number; luma: number } {
  const across = side === 'left' || side === 'right';
  const [lines, length] = across ? [width, height] : [height, width];
  const flip = side === 'right' || side === 'bottom';
  const at = (line: number, i: number) => {
    const l = flip ? lines - 1 - line : line;
    return (across ? i * width + l : l * width + i) * 4;
  };
  const most = Math.floor(lines * MOST);
  if (most < 3) return { depth: 0, luma: 0 };
  const middle = (line: number, c: number) => {
    const values = Float32Array.from({ length }, (_, i) => pixels[at(line, i) + c]).sort();
    return values[length >> 1];
  };
  // The outermost line may be mixed with something else, so the next one gives the colour.
  const colour = [0, 1, 2].map((c) => middle(1, c));
  const isPlain = (p: number) => colour.every((v, c) => Math.abs(pixels[p + c] - v) <= TOLERANCE);
  /** Share of a line that has the border's colour. */
  const share = (line: number) => {
    let n = 0;
    for (let i = 0; i < length; i++) if (isPlain(at(line, i))) n++;
    return n / length;
  };
  if (Math.max(share(0), share(1)) < 0.7) return { depth: 0, luma: 0 };
  let line = 1;
  while (line < most && share(line) >= 0.7) line++;
  // A border a little askew still touches lines further in; the last soft line goes with it.
  while (line < most && share(line) > 0.3) line++;
  if (line >= most) return { depth: 0, luma: 0 };
  line++;
  // A sky or a dark corner fades gradually, while the edge of a sheet is abrupt along its whole length.
  let sharp = 0;
  for (let i = 0; i < length; i++) {
    let d = 0;
    while (d <= line && isPlain(at(d, i))) d++;
    const [p, q] = [at(Math.max(0, d - 1), i), at(Math.min(lines - 1, d + 2), i)];
    if (d <= line && [0, 1, 2].some((c) => Math.abs(pixels[q + c] - pixels[p + c]) >= STEP)) sharp++;
  }
  if (sharp < length * SHARP) return { depth: 0, luma: 0 };
  return { depth: (line + 0.5) / lines, luma: 0.2126 * colour[0] + 0.7152 * colour[1] + 0.0722 * colour[2] };
}
