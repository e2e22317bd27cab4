import { measureFeatures, within } from './appearance';
import { drawBareEars } from './ears';
import type { Tones } from './faces';
import { faceWidth, type Face } from './finding';
import { drawHair, hairOdds } from './hair';
import type { Head, HeadPlanes } from './head';
import { hullOf } from './outlines';
import { drawFaceSkin, learnSkin } from './skin';
import type { Planes } from '../image/planes';

/**
 * Skin, hair and ears of a face in planes about its head. Skin and hair are learned as Gaussians of colour, light and contrast; each pixel belongs to the
 * likelier of them. Null where hardly any skin of the face shows.
 */
export function drawHead(planes: Planes, face: Face, long: number, tones: Tones, people: number): HeadPlanes | null {
  const width = faceWidth(face, long);
  const out = { skin: planes.make(), hair: planes.make(), ears: planes.make(), other: planes.make() };
  return planes.briefly(() => {
    const features = measureFeatures(planes, tones, width);
    const skin = learnSkin(planes, face, long, features);
    if (!skin) return null;
    const oval = planes.make();
    planes.fill(oval, hullOf(face, long));
    const person = planes.copy(people);
    planes.ramp(person, 0.5, 0.9);
    const head: Head = { planes, face, long, width, features, oval, person, skin };
    const likely = hairOdds(head);
    planes.put(drawBareEars(head, likely.odds), out.ears);
    planes.without(likely.odds, out.ears);
    planes.put(drawHair(head, likely), out.hair);
    planes.put(drawFaceSkin(planes, face, long, { features, looks: skin, oval, hair: out.hair, person: people }), out.skin);
    // An arm may be lighter or darker than the face, but it does not look more like hair or a garment.
    const bare = within(planes, features, skin, 30);
    planes.invert(bare);
    if (likely.looks.length > 0) planes.most(bare, likely.odds);
    planes.blur(bare, 0.01 * width);
    planes.put(bare, out.other);
    return out;
  });
}
