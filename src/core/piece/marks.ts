import { outlineOf } from '../guards/outlines';
import { irisOf, SURE, type Finding } from '../guards/finding';
import { unitOf } from '../image/unit';
import { fromFile, readiedSize, type Size } from '../ready/geometry';
import { neutralReady, type Ready } from '../ready/schema';
import type { StrokesSource } from '../sources/strokes';
import { markSchema, type Mark } from '../strokes/schema';
import { changeCoat, type Edit } from './edits';
import type { Coat } from './schema';

/** The marks that a coat starts from; null for a coat with another source. */
export const marksOf = (coat: Coat | null | undefined): StrokesSource | null =>
  coat && (coat.source as { kind: string }).kind === 'strokes' ? (coat.source as unknown as StrokesSource) : null;

/** Changes what a coat of marks starts from; another coat stays as it is. */
const changeSource = (id: string, change: (source: StrokesSource) => Partial<StrokesSource>): Edit =>
  changeCoat(id, (coat) => {
    const source = marksOf(coat);
    return source ? { source: { ...source, ...change(source) } as unknown as Coat['source'] } : {};
  });

export const addMark = (id: string, mark: Mark): Edit => changeSource(id, ({ strokes }) => ({ strokes: [...strokes, mark] }));

export const setMarks = (id: string, change: (marks: readonly Mark[]) => Mark[]): Edit =>
  changeSource(id, ({ strokes }) => ({ strokes: change(strokes) }));

/** One colour for all marks, those with a colour of their own included. */
export const recolourMarks = (id: string, colour: string): Edit =>
  changeSource(id, ({ strokes }) => ({ colour, strokes: strokes.map(({ colour: _own, ...mark }) => mark) }));

/** Where the irises themselves were not found, one is about this part of an eye's width: 11.7 of 30 mm (common practice, no source). */
const IRIS = 0.42;
/** Mesh points of the outer and inner corner of each eye. */
const eyes = ['leftEye', 'rightEye'] as const;

/** A soft mark over each iris of the faces that are certain, on the readied photo. */
export function irisMarks({ faces }: Finding, photo: Size, ready: Ready = neutralReady): Mark[] {
  const long = Math.max(photo.width, photo.height);
  const frame = readiedSize(photo, ready);
  const unit = unitOf(frame);
  return faces
    .filter(({ score }) => score >= SURE)
    .flatMap((face) =>
      eyes.map((eye) => {
        const at = ([x, y]: readonly [number, number]) => {
          const [fx, fy] = fromFile(photo, ready, [x, y]);
          return [fx * frame.width, fy * frame.height] as const;
        };
        const iris = irisOf(face, long)?.[eye === 'rightEye' ? 0 : 1];
        if (iris) {
          const [middle, rim] = [at([iris.x, iris.y]), at([iris.x + iris.radius, iris.y])];
          const size = (2 * Math.hypot(rim[0] - middle[0], rim[1] - middle[1])) / unit;
          return markSchema.parse({ size: Math.max(0.01, size), hardness: 0.5, points: [[middle[0] / frame.width, middle[1] / frame.height, 1]] });
        }
        const outline = outlineOf(face, eye, long).map((point) => fromFile(photo, ready, point));
        const [xs, ys] = [outline.map((p) => p[0] * frame.width), outline.map((p) => p[1] * frame.height)];
        const middle = (values: number[]) => (Math.min(...values) + Math.max(...values)) / 2;
        const across = Math.hypot(xs[0] - xs[8], ys[0] - ys[8]);
        return markSchema.parse({
          size: Math.max(0.01, (IRIS * across) / unit),
          hardness: 0.5,
          points: [[middle(xs) / frame.width, middle(ys) / frame.height, 1]],
        });
      }),
    );
}
