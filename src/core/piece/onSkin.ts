import { withFirst } from '../first';
import { materialById } from '../materials';
import type { FirstSpec } from '../materials/first';
import { newCoat } from './edits';
import { coatSchema, type Coat } from './schema';

/** Where the light on a face comes from, as relief names it. */
export interface FaceLight {
  direction: number;
  elevation: number;
}

/** Something that is set up on the skin of all faces in one tap: ordinary coats, every part of which can be changed afterwards. */
export interface OnSkin {
  id: 'grain' | 'cracks';
  label: string;
  /** What it is for, in at most twelve words. */
  says: string;
  /** Other words by which a search finds it, in lower case. */
  words: string;
  /** The coats, bottom to top. */
  coats(newId: () => string, light: FaceLight): Coat[];
}

/** Away from the darkest and the brightest skin (common practice, no source). */
const LIMITS: Coat['limits'] = [0.06, 0.25, 0.78, 0.95];
/** Found by eye on portraits. */
const GRAIN_DEPTH = 0.06;
const CRACKS = 'cracks.craquelure';
const CRACKS_SCALE = 1.8;
const CRACKS_DEPTH = 0.1;

/** On the skin alone, running out where the form turns away. */
const skinMask = (regions: readonly string[], fade: number) => ({
  start: 'none',
  parts: [...regions.map((region) => ({ kind: 'guard', region, op: 'add' })), { kind: 'contour', op: 'intersect', amount: fade }],
});
/** What lies on the skin is not held back from it; eyes, lips and nostrils are. */
const ON_SKIN = { subject: 0, skin: 0, body: 0 };
const follow = { kind: 'drape', map: 'form', form: 0.8 };

const grain: OnSkin = {
  id: 'grain',
  label: 'Give the skin its grain back',
  says: 'Pores and fine lines on smooth skin, in the light of the face.',
  words: 'skin grain pores texture retouch portrait face blurred smooth detail',
  coats: (newId, light) => [
    coatSchema.parse({
      id: newId(),
      name: 'Skin grain',
      source: { kind: 'material', id: 'skin.grain', seed: 1, params: {} },
      lay: { fit: 'tile', faces: true, mix: true },
      blend: 'overlay',
      strength: 0.8,
      limits: LIMITS,
      treatments: [{ kind: 'relief', map: 'height', depth: GRAIN_DEPTH, soften: 0, ...light }, follow, { kind: 'focus' }],
      mask: skinMask(['skin', 'body'], 0.3),
      guards: 1,
      guardAmounts: ON_SKIN,
    }),
  ],
};

const cracks: OnSkin = {
  id: 'cracks',
  label: 'Cracks on the skin',
  says: 'A net of cracks on the face, following its form.',
  words: 'cracked skin crackle craquelure porcelain stone statue face',
  coats(newId, light) {
    const plain = newCoat(newId(), { kind: 'material', id: CRACKS, seed: 1, params: {} });
    const specs = materialById(CRACKS).first ?? [];
    const withSpec = (coat: Coat, control: FirstSpec['control'], value: number) => {
      const spec = specs.find((one) => one.control === control);
      return spec ? withFirst(coat, spec, value) : coat;
    };
    const net = withSpec(withSpec(plain, 'only', 0.75), 'raised', 0.5);
    const lit = net.treatments.map((step) => (step.kind === 'relief' ? { ...step, ...light, map: 'height', depth: CRACKS_DEPTH } : step));
    return [
      coatSchema.parse({
        ...net,
        name: 'Cracks on the skin',
        lay: { fit: 'tile', faces: true, scale: CRACKS_SCALE },
        treatments: [...lit, follow],
        mask: skinMask(['skin', 'body'], 0.4),
        guards: 1,
        guardAmounts: { ...net.guardAmounts, ...ON_SKIN },
      }),
      coatSchema.parse({
        id: newId(),
        name: 'Original colours',
        source: { kind: 'photo' },
        blend: 'overlay',
        strength: 0.25,
        mask: skinMask(['skin', 'body'], 0.4),
        guards: 0,
      }),
    ];
  },
};

export const onSkin: readonly OnSkin[] = [grain, cracks];
