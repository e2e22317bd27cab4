import * as z from 'zod';
import { fromBase64 } from './bytes';

/** Points of a face's mesh. */
export const MESH_POINTS = 468;
/** Points of both irises. */
export const IRIS_POINTS = 10;
/** Places are stored as whole multiples of the photo's long side divided by this: a fifth of a pixel at 20 megapixels. */
export const GRID = 32768;

/**
 * A face as it was found: how sure that is, 0..1, and its mesh. Three numbers a point: across, down, and away from the viewer, in parts of
 * the file's long side times `GRID`, from the file's upper left corner.
 */
export const faceSchema = z
  .object({
    score: z.number().min(0).max(1),
    mesh: z.array(z.number().int()).length(MESH_POINTS * 3),
    /** Five points of either iris, two numbers each, the person's right one first: its middle, then around it. Findings of earlier versions have none. */
    irises: z
      .array(z.number().int())
      .length(IRIS_POINTS * 2)
      .optional(),
  })
  .strict();
export type Face = z.output<typeof faceSchema>;

/** How much each place belongs to a person: one byte a cell over the whole file, base64. */
export const personSchema = z
  .object({
    width: z.number().int().min(1).max(1024),
    height: z.number().int().min(1).max(1024),
    map: z.string().max(1_500_000),
  })
  .strict()
  .refine(({ width, height, map }) => Math.ceil((width * height) / 3) * 4 === map.length, 'the map of a person must have one byte a cell');

/**
 * A face that was seen but whose features were not found, as from the side or behind a hand: its middle, its width, and about where
 * its eyes, nose and mouth are, across and down in the numbers of a mesh.
 */
export const seenSchema = z
  .object({ x: z.number().int(), y: z.number().int(), size: z.number().int().min(1), marks: z.array(z.number().int()).length(8) })
  .strict();
export type Seen = z.output<typeof seenSchema>;

/** What was found on a photo. It belongs to the file: readying leaves it alone. Findings of earlier versions say nothing of what was only seen. */
export const findingSchema = z
  .object({
    version: z.literal(1),
    faces: z.array(faceSchema).max(50),
    seen: z.array(seenSchema).max(50).optional(),
    person: personSchema.nullable(),
  })
  .strict();
export type Finding = z.output<typeof findingSchema>;

export type Point = readonly [number, number];

/** Mesh point `i` in pixels of a picture whose long side has `long`. */
export const meshPoint = ({ mesh }: Pick<Face, 'mesh'>, i: number, long: number): [number, number] => [
  (mesh[3 * i] * long) / GRID,
  (mesh[3 * i + 1] * long) / GRID,
];

/** An iris in pixels. */
export interface Iris {
  x: number;
  y: number;
  radius: number;
}

/** Both irises, the person's right one first, in pixels of a picture whose long side has `long`; null where they were not looked for. */
export function irisOf({ irises }: Pick<Face, 'irises'>, long: number): [Iris, Iris] | null {
  if (!irises) return null;
  const k = long / GRID;
  const [right, left] = [0, 5].map((first) => {
    const [x, y] = [irises[2 * first] * k, irises[2 * first + 1] * k];
    const around = [1, 2, 3, 4].map((i) => Math.hypot(irises[2 * (first + i)] * k - x, irises[2 * (first + i) + 1] * k - y));
    return { x, y, radius: around.reduce((a, b) => a + b, 0) / 4 };
  });
  return [right, left];
}

/** Width of a face: the distance in space of the points before its ears, in pixels of a picture whose long side has `long`. */
export function faceWidth({ mesh }: Pick<Face, 'mesh'>, long: number): number {
  const [a, b] = [234 * 3, 454 * 3];
  return (Math.hypot(mesh[a] - mesh[b], mesh[a + 1] - mesh[b + 1], mesh[a + 2] - mesh[b + 2]) * long) / GRID;
}

/** Whether a face is guarded: as the user has said, or by its score. */
export const faceTaken = (guards: { faces: Record<string, boolean> } | undefined, { faces }: Pick<Finding, 'faces'>, i: number): boolean =>
  guards?.faces[String(i)] ?? faces[i].score >= SURE;

/** The share of the photo that a map of people covers. */
export const mapShare = ({ map, width, height }: NonNullable<Finding['person']>): number =>
  fromBase64(map).reduce((sum, v) => sum + v, 0) / (255 * width * height);

/** Whether the person found is the subject. Without a sure face the map of people may as well show an animal or an apple: it is then only offered. */
export const personTaken = (guards: { faces: Record<string, boolean>; person?: boolean } | undefined, finding: Finding): boolean =>
  finding.person !== null && (guards?.person ?? finding.faces.some((_, i) => faceTaken(guards, finding, i)));

/** A face with at least this score is guarded without asking; one with a lower score is only offered. */
export const SURE = 0.65;
