import { faceWidth, meshPoint, MESH_POINTS, SURE, type Finding } from '../guards/finding';
import { fromBase64 } from '../guards/bytes';
import { mapCoats } from '../piece/groups';
import type { Coat } from '../piece/schema';
import { fromFile, type Size } from '../ready/geometry';
import { neutralReady, type Ready } from '../ready/schema';

/** The portraits on which the looks were made: the frame, and half the extent of the face in it, in pixels. */
const SAMPLE = { width: 1200, height: 1500, across: 270, down: 312 };
/** Half of a person's extent, of which so much is the face's where none is seen. */
const OF_PERSON = { across: 0.45, down: 0.46 };

interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** What a look's masks go about, in pixels of the file: all sure faces together, else what a person's face would be; null where nobody was found. */
export function sitterOf({ faces, person }: Finding, photo: Size): Box | null {
  const long = Math.max(photo.width, photo.height);
  const sure = faces.filter((f) => f.score >= SURE && faceWidth(f, long) > 0);
  if (sure.length > 0) {
    const points = sure.flatMap((face) => Array.from({ length: MESH_POINTS }, (_, i) => meshPoint(face, i, long)));
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
  }
  if (!person) return null;
  const map = fromBase64(person.map);
  let box: Box | null = null;
  for (let y = 0; y < person.height; y++) {
    for (let x = 0; x < person.width; x++) {
      if (map[y * person.width + x] < 128) continue;
      box = box
        ? { left: Math.min(box.left, x), top: Math.min(box.top, y), right: Math.max(box.right, x + 1), bottom: y + 1 }
        : { left: x, top: y, right: x + 1, bottom: y + 1 };
    }
  }
  if (!box) return null;
  const [kx, ky] = [photo.width / person.width, photo.height / person.height];
  const [cx, cy] = [((box.left + box.right) / 2) * kx, ((box.top + box.bottom) / 2) * ky];
  const [hx, hy] = [(((box.right - box.left) * kx) / 2) * OF_PERSON.across, (((box.bottom - box.top) * ky) / 2) * OF_PERSON.down];
  return { left: cx - hx, top: cy - hy, right: cx + hx, bottom: cy + hy };
}

/**
 * Coats of a look whose ellipses and broad strokes go about the person that was found; ellipses as large as they were about the sample's. Where nobody was found they stay where the
 * look has them. From then on they are ellipses like any other.
 */
export function aroundSitter(coats: readonly Coat[], finding: Finding | null, photo: Size, ready: Ready = neutralReady): Coat[] {
  const found = finding && sitterOf(finding, photo);
  const box = found && inFrame(found, photo, ready);
  return mapCoats(coats, (coat) =>
    coat.mask.parts.some((part) => part.around !== undefined)
      ? { ...coat, mask: { ...coat.mask, parts: coat.mask.parts.map((part) => (part.around === undefined ? part : placed(part, box))) } }
      : coat,
  );
}

type Part = Coat['mask']['parts'][number];

function placed(part: Part, box: Box | null): Part {
  const { around: _around, ...plain } = part as Part & { around?: string; rx: number; ry: number };
  if (!box) return plain as Part;
  if (part.kind === 'reveal') {
    // Broad strokes cover most of the picture: they lean towards the person, whose shoulders lie below the face.
    const lean = (from: number, to: number) => Math.min(0.65, Math.max(0.35, (from + to) / 2));
    return { ...plain, centreX: lean(box.left, box.right), centreY: lean(box.top, box.bottom + (box.bottom - box.top) / 2) } as unknown as Part;
  }
  const [across, down] = [(box.right - box.left) / 2, (box.bottom - box.top) / 2];
  return {
    ...plain,
    cx: (box.left + box.right) / 2,
    cy: (box.top + box.bottom) / 2,
    rx: (plain.rx * SAMPLE.width * across) / SAMPLE.across,
    ry: (plain.ry * SAMPLE.height * down) / SAMPLE.down,
  } as unknown as Part;
}

/** The box about a box of the file, in fractions of the readied photo. */
function inFrame({ left, top, right, bottom }: Box, photo: Size, ready: Ready): Box {
  const corners = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].map(([x, y]) => fromFile(photo, ready, [x, y]));
  const [xs, ys] = [corners.map((p) => p[0]), corners.map((p) => p[1])];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}
