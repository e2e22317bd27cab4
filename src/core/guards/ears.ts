import { within } from './appearance';
import type { Head } from './head';
import { earOutlines } from './outlines';

/** Least redness, blueness and light of a bare ear, as differences from the skin of the face in the units of the features. */
const EAR = { red: -0.08, pale: -0.05, blue: -0.25, light: -0.8 };
/** Smallest part of an ear that is worth having, in squared face widths; and how much hair may fall below one that is bare. */
const EAR_PART = 0.03;
const HAIR_BELOW = 0.6;

/** If this share of an ear looks like skin, it is an ear. */
const BARE = 0.6;

/** Ears that hair does not cover. Hair is paler or darker than skin, or goes on below the ear. `hair` is how likely hair is. */
export function drawBareEars(head: Head, hair: number): number {
  const { planes, face, long } = head;
  const out = planes.make();
  for (const outline of earOutlines(face, long)) planes.briefly(() => addBareEar(head, outline, hair, out));
  return out;
}

function addBareEar({ planes, width, features, oval, person, skin: [skin] }: Head, outline: [number, number][], hair: number, out: number): void {
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
  planes.blur(ear, 0.02 * width);
  planes.most(out, ear);
}
