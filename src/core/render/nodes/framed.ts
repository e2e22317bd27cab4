import type { DrawContext } from '../../graph/context';
import { levelSize, type Picture } from '../../image/picture';
import { isAffine, slope, type Projection } from '../../image/projection';
import { into, sampleAffine, samplePhoto } from '../../image/sample';
import type { Tile } from '../../image/tile';
import type { Framing } from '../../ready/framing';
import { defineNode } from './node';

type FramedParams = Framing & { isPhoto: boolean };

/** A picture of the photo's file in the photo's frame, through its perspective and lens: the photo itself, or a region found on it. */
export default defineNode<FramedParams>({
  planes: 4,
  // Reading the photo again costs no more than reading it from where it would be kept, unless its lens has to be put right.
  isCheap: ({ lens }) => !lens,
  draw(context, region, params) {
    const { x, y, width, height } = region;
    const { scratch, machine } = context;
    const tile = scratch.tile({ x, y, width, height });
    const { picture, low } = context.needed('file', 'picture');
    const sample = (to: Tile, from: Picture) =>
      params.asIs ? sampleAsIs(context, to, from, params) : sampleFramed(context, to, from, params.isPhoto ? params : framingOf(from, params));
    sample(tile, picture);
    if (low) {
      // A value of 16 bits is 256 times its high byte and its low one, and so is their mean over pixels.
      const mark = scratch.mark();
      const rest = scratch.tile({ x, y, width, height });
      sample(rest, low);
      machine.kernels.mixIn(tile.ptr, rest.ptr, tile.count * 4, 256 / 257, 1 / 257, 0);
      scratch.release(mark);
    }
    if (!params.asIs) lightenCorners(context, tile, params.isPhoto ? params : framingOf(picture, params));
    return tile;
  },
});

/** A file that is used as it is, without a frame. */
function sampleAsIs({ machine, scale }: DrawContext, tile: Tile, picture: Picture, { isPhoto, file }: FramedParams): void {
  if (isPhoto) return samplePhoto(machine, picture, scale, tile);
  const [a, d] = [picture.width / file.width / scale, picture.height / file.height / scale];
  sampleAffine(machine, picture, { a, b: 0, c: 0, d, e: 0, f: 0 }, 'extend', tile);
}

/** The framing for a picture of the file that has another size. The light of the corners and colour fringes belong to the photo alone. */
function framingOf(picture: Picture, { map, lens, file, ...size }: Framing): Framing {
  const [kx, ky] = [picture.width / file.width, picture.height / file.height];
  const scaledLens = lens && { ...lens, cx: lens.cx * kx, cy: lens.cy * ky, radius: lens.radius * kx, red: 1, blue: 1, f1: 0, f2: 0 };
  return {
    ...size,
    file: picture,
    map: map.map((v, i) => (i < 3 ? v * kx : i < 6 ? v * ky : v)) as unknown as Projection,
    lens: scaledLens,
    clear: false,
  };
}

/** Scratch memory of the kernels that read between pixels, in bytes. */
const TAPS = 16400;

/** Reductions up to this one are read by a cubic: a level frame must not cost sharpness. */
const OWN_SIZE = 1.05;

/** Fills a tile with a picture in a frame. */
export function drawFramed(context: DrawContext, tile: Tile, picture: Picture, framing: Framing): void {
  sampleFramed(context, tile, picture, framing);
  lightenCorners(context, tile, framing);
}

function sampleFramed(context: DrawContext, tile: Tile, picture: Picture, framing: Framing): void {
  const { machine, scale } = context;
  const { map, lens, width, height, clear } = framing;
  const upright = map[0] === 1 && map[1] === 0 && map[3] === 0 && map[4] === 1 && map[6] === 0 && map[7] === 0;
  if (upright && scale <= 1 && !clear && !lens) return samplePhoto(machine, picture, scale, tile, map[2], map[5]);
  const [ux, vx, uy, vy] = slope(map, [width / 2, height / 2]);
  const reduction = Math.sqrt(Math.abs(ux * vy - vx * uy)) / scale;
  if (reduction > OWN_SIZE && isAffine(map) && !clear && !lens) {
    const k = 1 / scale;
    const affine = { a: map[0] * k, b: map[3] * k, c: map[1] * k, d: map[4] * k, e: map[2], f: map[5] };
    return sampleAffine(machine, picture, affine, 'extend', tile);
  }
  const wanted = reduction > OWN_SIZE ? Math.max(0, Math.min(picture.levels.length - 1, Math.log2(reduction) - 0.25)) : 0;
  const level = Math.floor(wanted);
  const sampling = { context, picture, framing, tile };
  drawLevel({ ...sampling, level, smooth: reduction <= OWN_SIZE, mix: 1 });
  const mix = wanted - level;
  if (mix > 0.01 && level + 1 < picture.levels.length) drawLevel({ ...sampling, level: level + 1, smooth: false, mix });
}

function lightenCorners({ machine, scale }: DrawContext, tile: Tile, { map, lens }: Framing): void {
  if (!lens || (lens.f1 === 0 && lens.f2 === 0)) return;
  const { cx, cy, radius, zoom, k1, k2, f1, f2 } = lens;
  const { ptr, stride, width, height } = tile;
  const m = placed(map, tile, scale, 1);
  machine.kernels.cornerLight({ tile: ptr, stride, tw: width, th: height, m, cx, cy, radius, zoom, k1, k2, f1, f2 });
}

/** The map from pixels of a tile to those of a level of the picture, `k` times smaller. */
function placed(map: Projection, tile: Tile, scale: number, k: number): Projection {
  const s = 1 / scale;
  const rows = [0, 3, 6].map((r) => [map[r] * s, map[r + 1] * s, map[r + 2] + (map[r] * tile.x + map[r + 1] * tile.y) * s]);
  return rows.flatMap((row, r) => (r < 2 ? row.map((v) => v * k) : row)) as unknown as Projection;
}

interface Sampling {
  context: DrawContext;
  picture: Picture;
  framing: Framing;
  tile: Tile;
  level: number;
  /** Reads by a cubic instead of linearly. */
  smooth: boolean;
  /** How much of it is mixed into what is there. */
  mix: number;
}

function drawLevel({ context, picture, framing, tile, level, smooth, mix }: Sampling): void {
  const { machine, scratch, scale } = context;
  const { map, lens, clear } = framing;
  const [w, h] = levelSize(picture, level);
  const k = 1 / (1 << level);
  const m = placed(map, tile, scale, k);
  const common = { src: picture.levels[level], w, h, ...into(tile), m, smooth: +smooth, clear: +!!clear, mix };
  const mark = scratch.mark();
  const taps = scratch.take(TAPS);
  if (lens) {
    const { cx, cy, radius, zoom, k1, k2, red, blue } = lens;
    machine.kernels.sampleLens({ ...common, cx: cx * k, cy: cy * k, radius: radius * k, zoom, k1, k2, red, blue, taps });
  } else machine.kernels.sampleProjected({ ...common, taps });
  scratch.release(mark);
}
