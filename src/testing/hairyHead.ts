import { Random } from '../core/materials/random';

/** A made-up head with fine hair, as its alpha and the colours of what is in front: planes of 0..1, the colours with three values a pixel. */
export interface Cut {
  width: number;
  height: number;
  alpha: Float32Array;
  colours: Float32Array;
}
type Colour = readonly [number, number, number];

const clamp = (v: number) => Math.min(1, Math.max(0, v));

class Painter implements Cut {
  readonly alpha: Float32Array;
  readonly colours: Float32Array;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.alpha = new Float32Array(width * height);
    this.colours = new Float32Array(width * height * 3);
  }

  private over(i: number, cover: number, colour: Colour): void {
    const rest = this.alpha[i] * (1 - cover);
    const all = cover + rest;
    if (all <= 0) return;
    colour.forEach((v, k) => (this.colours[3 * i + k] = (v * cover + this.colours[3 * i + k] * rest) / all));
    this.alpha[i] = all;
  }

  /** A filled superellipse. */
  oval(cx: number, cy: number, rx: number, ry: number, colour: Colour, power = 2): void {
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        const d = (Math.abs((x + 0.5 - cx) / rx) ** power + Math.abs((y + 0.5 - cy) / ry) ** power) ** (1 / power);
        const shade = 1 + (0.12 * (cx - x)) / rx;
        this.over(y * this.width + x, clamp((1 - d) * Math.min(rx, ry) + 0.5), [colour[0] * shade, colour[1] * shade, colour[2] * shade]);
      }
  }

  /** A hair through these points that ends in nothing. */
  hair(points: readonly (readonly [number, number])[], width: number, colour: Colour): void {
    const cover = new Map<number, number>();
    points.slice(1).forEach(([bx, by], k) => {
      const [ax, ay] = points[k];
      const half = 0.5 * width * (1 - (0.7 * k) / points.length);
      const [dx, dy] = [bx - ax, by - ay];
      for (let y = Math.floor(Math.min(ay, by) - half - 1); y <= Math.max(ay, by) + half + 1; y++)
        for (let x = Math.floor(Math.min(ax, bx) - half - 1); x <= Math.max(ax, bx) + half + 1; x++) {
          if (x < 0 || y < 0 || x >= this.width || y >= this.height) continue;
          const t = clamp(((x + 0.5 - ax) * dx + (y + 0.5 - ay) * dy) / (dx * dx + dy * dy));
          const d = Math.hypot(x + 0.5 - ax - t * dx, y + 0.5 - ay - t * dy);
          const v = half >= 0.5 ? clamp(half + 0.5 - d) : clamp(1 - d) * 2 * half;
          cover.set(y * this.width + x, Math.max(v, cover.get(y * this.width + x) ?? 0));
        }
    });
    for (const [i, v] of cover) this.over(i, v, colour);
  }
}

/** The same head at every call. */
export function hairyHead(width: number, height: number): Cut {
  const head = new Painter(width, height);
  const chance = new Random(1);
  const random = () => chance.next();
  const u = width / 1200;
  const [cx, cy] = [width / 2, height * 0.42];
  const brown: Colour = [0.36, 0.24, 0.15];
  const dyed = (k: number): Colour => [brown[0] * k, brown[1] * k, brown[2] * k];
  head.oval(cx, height * 1.02, 430 * u, 330 * u, [0.25, 0.33, 0.5], 3);
  head.oval(cx, cy - 10 * u, 255 * u, 300 * u, dyed(0.8));
  for (let k = 0; k < 2600; k++) {
    const turn = random() * 2 * Math.PI;
    if (Math.sin(turn) > 0.8) continue;
    const out = 0.86 + 0.13 * random();
    let [x, y] = [cx + 255 * u * out * Math.cos(turn), cy - 10 * u + 300 * u * out * Math.sin(turn)];
    let angle = turn + (random() - 0.5) * 1.5;
    const [bend, steps] = [(random() - 0.5) * 0.09, 10 + 37 * random() * random()];
    const points: [number, number][] = [[x, y]];
    for (let s = 0; s < steps; s++) {
      x += Math.cos(angle) * 3 * u;
      y += Math.sin(angle) * 3 * u;
      angle += bend + (random() - 0.5) * 0.06;
      points.push([x, y]);
    }
    head.hair(points, (0.85 + 1.55 * random()) * u, dyed(0.55 + 0.9 * random()));
  }
  head.oval(cx, cy + 300 * u, 85 * u, 260 * u, [0.72, 0.53, 0.43]);
  head.oval(cx, cy + 50 * u, 175 * u, 235 * u, [0.8, 0.6, 0.5]);
  return head;
}

/** Backgrounds as they are out of focus: three values a pixel. */
export function softGround(kind: 'sky' | 'leaves', width: number, height: number): Float32Array {
  const chance = new Random(7);
  const random = () => chance.next();
  const blobs = Array.from({ length: 40 }, () => ({
    x: random() * width,
    y: random() * height,
    r: (0.05 + 0.12 * random()) * width,
    colour: [0.2 + 0.5 * random(), 0.35 + 0.5 * random(), 0.15 + 0.4 * random()],
  }));
  const out = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const colour = kind === 'sky' ? [0.62 - (0.15 * y) / height, 0.72 - (0.1 * y) / height, 0.85 - (0.05 * x) / width] : [0.08, 0.1, 0.05];
      let all = 0.2;
      for (const blob of kind === 'sky' ? [] : blobs) {
        const weight = Math.exp(-((x - blob.x) ** 2 + (y - blob.y) ** 2) / (blob.r * blob.r));
        all += weight;
        blob.colour.forEach((v, k) => (colour[k] += weight * v));
      }
      out.set(kind === 'sky' ? colour : colour.map((v) => v / all), 3 * (y * width + x));
    }
  return out;
}

/** A photograph of what was cut in front of a background, RGBA8, with some noise. */
export function photographed({ width, height, alpha, colours }: Cut, ground: Float32Array, noise = 0.006): Uint8Array<ArrayBuffer> {
  const chance = new Random(3);
  const random = () => chance.next();
  const out = new Uint8Array(width * height * 4).fill(255);
  alpha.forEach((a, i) => {
    for (let k = 0; k < 3; k++) {
      const grain = (random() + random() + random() - 1.5) * 2 * noise;
      out[4 * i + k] = Math.round(255 * clamp(colours[3 * i + k] * a + ground[3 * i + k] * (1 - a) + grain));
    }
  });
  return out;
}

/** Mean over a box, with edges extended. */
function boxed(plane: Float32Array, width: number, height: number, radius: number): Float32Array {
  const along = (from: Float32Array, lines: number, length: number, step: number, line: number) => {
    const out = new Float32Array(from.length);
    for (let l = 0; l < lines; l++) {
      const at = (k: number) => l * line + Math.min(length - 1, Math.max(0, k)) * step;
      let sum = 0;
      for (let k = -radius; k <= radius; k++) sum += from[at(k)];
      for (let k = 0; k < length; k++) {
        out[at(k)] = sum / (2 * radius + 1);
        sum += from[at(k + radius + 1)] - from[at(k - radius)];
      }
    }
    return out;
  };
  return along(along(plane, height, width, 1, width), width, height, width, 1);
}

/** What a finder would say of it: coarse, nearly black and white, without single hairs. */
export function coarseMap({ width, height, alpha }: Cut, across = 192): { width: number; height: number; bytes: Uint8Array } {
  let soft = alpha;
  for (let pass = 0; pass < 3; pass++) soft = boxed(soft, width, height, Math.round(width / 100));
  const down = Math.round((across * height) / width);
  const bytes = Uint8Array.from({ length: across * down }, (_, i) => {
    const [x, y] = [i % across, Math.floor(i / across)];
    const t = clamp((soft[Math.floor(((y + 0.5) / down) * height) * width + Math.floor(((x + 0.5) / across) * width)] - 0.35) / 0.4);
    return Math.round(255 * t * t * (3 - 2 * t));
  });
  return { width: across, height: down, bytes };
}
