import { within } from './appearance';
import type { Head } from './head';
import { meshPoint } from './finding';
import { earOutlines } from './outlines';

/** The point of the mesh between the eyes. */
const BRIDGE = 168;

/** Least redness, blueness and light of a bare ear, as differences from the skin of the face in the units of the features. */
const EAR = { red: -0.08, pale: -0.05, blue: -0.25, light: -0.8 };
/** Smallest part of an ear that is worth having, in squared face widths; and how much hair may fall below one that is bare. */
const EAR_PART = 0.03;
const HAIR_BELOW = 0.6;

/** Where this share of what lies beyond an ear is the person too, it must be darker by this much, as hair behind an ear is: else hair may go over it. */
const SURROUNDED = 0.8;
const DARKER = 0.1;

/** If this share of an ear looks like skin, it is an ear. */
const BARE = 0.6;

/** Ears that hair does not cover. Hair is paler or darker than skin, or goes on below the ear. `hair` is how likely hair is. */
export function drawBareEars(head: Head, hair: number): number {
  const { planes, face, long } = head;
  const out = planes.make();
  const bridge = meshPoint(face, BRIDGE, long);
  for (const outline of earOutlines(face, long)) planes.briefly(() => addBareEar(head, outline, outwards(outline, bridge), hair, out));
  return out;
}

type Outline = [number, number][];

/** The direction in which an ear lies from a point of the face, of length 1. */
function outwards(outline: Outline, from: readonly [number, number]): [number, number] {
  const middle = (c: 0 | 1) => outline.reduce((sum, p) => sum + p[c], 0) / outline.length;
  const [x, y] = [middle(0) - from[0], middle(1) - from[1]];
  const length = Math.max(1e-6, Math.hypot(x, y));
  return [x / length, y / length];
}

function addBareEar(head: Head, outline: Outline, outward: [number, number], hair: number, out: number): void {
  const {
    planes,
    width,
    features,
    oval,
    person,
    skin: [skin],
  } = head;
  const ear = planes.make();
  planes.fill(ear, outline);
  planes.without(ear, oval);
  planes.times(ear, person);
  const area = planes.sum(ear);
  if (area < EAR_PART * width * width) return;
  const [blue, red, light] = features.map((f, i) => planes.briefly(() => planes.sum(planes.product(f, ear)) / area) - skin.mean[i]);
  const bare = within(planes, features, [skin], 16);
  planes.without(bare, hair);
  if (red < EAR.pale || planes.sum(planes.product(bare, ear)) < BARE * area) {
    if (red < EAR.red || blue < EAR.blue || light < EAR.light) return;
    const below = planes.make();
    planes.fill(
      below,
      outline.map(([x, y]): [number, number] => [x, y + 0.45 * width]),
    );
    planes.without(below, oval);
    const place = planes.sum(below);
    planes.times(below, person);
    planes.times(below, hair);
    if (planes.sum(below) > HAIR_BELOW * place) return;
  }
  if (isCovered(head, { outline, ear, light: light + skin.mean[2], out: outward })) return;
  planes.blur(ear, 0.02 * width);
  planes.most(out, ear);
}

interface Found {
  outline: Outline;
  /** Plane of the ear, and how light it is. */
  ear: number;
  light: number;
  /** Away from the face. */
  out: readonly [number, number];
}

/** Whether what lies beyond an ear says that hair in a colour like that of skin goes over it. An ear of which that is not sure is left out. */
function isCovered({ planes, width, features, oval, person }: Head, { outline, ear, light, out: [dx, dy] }: Found): boolean {
  return planes.briefly(() => {
    const beyond = planes.make();
    planes.fill(
      beyond,
      outline.map(([x, y]): [number, number] => [x + 0.16 * width * dx, y + 0.16 * width * dy]),
    );
    planes.without(beyond, oval);
    planes.without(beyond, ear);
    const place = planes.sum(beyond);
    planes.times(beyond, person);
    const area = planes.sum(beyond);
    return area > SURROUNDED * place && planes.sum(planes.product(features[2], beyond)) / area > light - DARKER;
  });
}
