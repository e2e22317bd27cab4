import { GRID, type Face, type Finding } from '../../core/guards/finding';
import { toBase64 } from '../../core/guards/bytes';
import type { Machine } from '../../core/image/machine';
import type { Picture } from '../../core/image/picture';
import { sampleAffine, type Affine } from '../../core/image/sample';
import type { Scratch } from '../../core/image/tile';
import { apart, decodeBoxes, overlap, partWindows, wholeWindow, type Box, type Window } from './boxes';
import { meshOf, type Meshed, type Square } from './meshing';
import { SIDES, type Models } from './models';

/** Boxes this sure are looked at more closely; the mesh then decides. */
const LEAST = 0.2;
const MOST_FACES = 20;
/** A box this sure in which no mesh is found is offered as a face without features. */
const CLEARLY = 0.7;
/** Long side of the map of people. */
const PERSON_SIDE = 512;

/**
 * Faces and people on a photo. It reads the photo reduced as each model wants it; about 2048 px on the long side are enough.
 * Detector and meshes as in Bazarevsky et al. 2019, Kartynnik et al. 2019 and Grishchenko et al. 2020.
 */
export class Finder {
  constructor(
    private readonly machine: Machine,
    private readonly scratch: Scratch,
    private readonly models: Models,
  ) {}

  async find(photo: Picture, onProgress: (share: number) => void = () => undefined): Promise<Finding> {
    const { width, height } = photo;
    const boxes = await this.look(photo, wholeWindow(width, height));
    onProgress(0.15);
    // A face that fills a good part of the photo is what it is of; else small ones are looked for in its parts.
    const parts = boxes.some((b) => b.score > 0.6 && b.size > 0.22 * Math.min(width, height)) ? [] : partWindows(width, height);
    for (const [i, window] of parts.entries()) {
      boxes.push(...(await this.look(photo, window)));
      onProgress(0.15 + (0.35 * (i + 1)) / parts.length);
    }
    const candidates = apart(boxes).slice(0, MOST_FACES);
    const faces: Meshed[] = [];
    const seen: Box[] = [];
    const square: Square = (...of) => this.square(photo, ...of);
    for (const [i, box] of candidates.entries()) {
      const face = await meshOf(this.models, square, box);
      if (face) faces.push(face);
      else if (box.score >= CLEARLY) seen.push(box);
      onProgress(0.5 + (0.3 * (i + 1)) / candidates.length);
    }
    const kept = apart(faces, 0.4);
    const person = await this.people(photo, kept);
    onProgress(1);
    const long = Math.max(photo.width, photo.height);
    const from = (v: number) => Math.round((v / long) * GRID);
    return {
      version: 1,
      faces: kept.map((f): Face => ({
        score: Math.round(f.score * 1000) / 1000,
        mesh: Array.from(f.points, from),
        irises: Array.from(f.irises, from),
      })),
      seen: seen
        .filter((box) => kept.every((face) => overlap(box, face) < 0.2) && liesOn(person, box, person.width / photo.width))
        .map(({ x, y, size, marks }) => ({ x: from(x), y: from(y), size: from(size), marks: marks.flat().map(from) })),
      person: { ...person, map: toBase64(person.map) },
    };
  }

  private async look(photo: Picture, window: Window): Promise<Box[]> {
    return decodeBoxes(await this.models.boxes(this.square(photo, SIDES.blazeface, window, 0)), window, LEAST);
  }

  /** RGB of a square of the photo, turned upright by `angle` about its middle. */
  private square(photo: Picture, side: number, { x, y, side: span }: Window, angle: number): Float32Array {
    const k = span / side;
    const [cos, sin] = [Math.cos(angle) * k, Math.sin(angle) * k];
    const [cx, cy] = [x + span / 2, y + span / 2];
    const map: Affine = { a: cos, b: sin, c: -sin, d: cos, e: cx - (cos - sin) * (side / 2), f: cy - (sin + cos) * (side / 2) };
    return this.read(photo, side, map);
  }

  private read(photo: Picture, side: number, map: Affine): Float32Array {
    const { machine, scratch } = this;
    scratch.reset();
    const tile = scratch.tile({ x: 0, y: 0, width: side, height: side });
    sampleAffine(machine, photo, map, 'clear', tile);
    const { floats } = machine;
    const out = new Float32Array(side * side * 3);
    for (let c = 0; c < 3; c++) {
      const plane = (tile.ptr + c * tile.stride) / 4;
      for (let i = 0; i < side * side; i++) out[3 * i + c] = floats[plane + i];
    }
    return out;
  }

  /** The map of people: of the whole photo, and where faces are small in it of a square about each. */
  private async people(photo: Picture, faces: readonly Meshed[]): Promise<{ width: number; height: number; map: Uint8Array }> {
    const side = SIDES.selfie;
    const k = Math.min(1, PERSON_SIDE / Math.max(photo.width, photo.height));
    const width = Math.max(1, Math.round(photo.width * k));
    const height = Math.max(1, Math.round(photo.height * k));
    const whole = await this.models.person(this.read(photo, side, { a: photo.width / side, b: 0, c: 0, d: photo.height / side, e: 0, f: 0 }));
    const values = new Float32Array(width * height);
    /** Lays a map over the values: the better it sees the place, the more it counts; a window of its own wins but near its rim. */
    const put = (from: Float32Array, left: number, top: number, w: number, h: number, rim: number) => {
      for (let j = Math.max(0, Math.ceil(top)); j < Math.min(height, top + h); j++) {
        for (let i = Math.max(0, Math.ceil(left)); i < Math.min(width, left + w); i++) {
          const value = bilinear(from, side, ((i + 0.5 - left) / w) * side - 0.5, ((j + 0.5 - top) / h) * side - 0.5);
          const inside = Math.min(i + 0.5 - left, left + w - i - 0.5, j + 0.5 - top, top + h - j - 0.5);
          const weight = rim > 0 ? Math.min(1, Math.max(0, inside / rim)) : 1;
          values[j * width + i] += weight * (value - values[j * width + i]);
        }
      }
    };
    put(whole, 0, 0, width, height, 0);
    const short = Math.min(photo.width, photo.height);
    for (const face of faces.filter((f) => f.size < short * 0.3)) {
      const span = face.size * 5;
      const window = { x: face.x - span / 2, y: face.y - span * 0.3, side: span };
      const map = await this.models.person(this.square(photo, side, window, 0));
      put(map, window.x * k, window.y * k, span * k, span * k, span * k * 0.15);
    }
    return { width, height, map: Uint8Array.from(values, (v) => Math.round(Math.min(1, Math.max(0, v)) * 255)) };
  }
}

/** Whether a box lies on a person for the most part; `k` is the map's scale. */
function liesOn({ width, height, map }: { width: number; height: number; map: Uint8Array }, box: Box, k: number): boolean {
  let [sum, count] = [0, 0];
  for (let y = Math.round((box.y - box.size / 2) * k); y < (box.y + box.size / 2) * k; y++)
    for (let x = Math.round((box.x - box.size / 2) * k); x < (box.x + box.size / 2) * k; x++) {
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      sum += map[y * width + x];
      count++;
    }
  return sum > 127 * count;
}

function bilinear(from: Float32Array, side: number, x: number, y: number): number {
  const [u, v] = [Math.min(side - 1, Math.max(0, x)), Math.min(side - 1, Math.max(0, y))];
  const [i, j] = [Math.min(side - 2, Math.floor(u)), Math.min(side - 2, Math.floor(v))];
  const [fu, fv] = [u - i, v - j];
  const at = j * side + i;
  return (from[at] * (1 - fu) + from[at + 1] * fu) * (1 - fv) + (from[at + side] * (1 - fu) + from[at + side + 1] * fu) * fv;
}
