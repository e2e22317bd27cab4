import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'below',
  label: 'Coats below',
  offers: [
    {
      label: 'Adjustment',
      says: 'Light and colour of all the coats below.',
      words: 'treat correct black and white sepia fade curves levels contrast',
    },
    {
      label: 'Painting',
      says: 'Patches of paint and brush strokes along the form.',
      words: 'painterly simplify oil acrylic brush strokes dabs knife',
      look: {
        blend: 'normal',
        strength: 1,
        treatments: [
          { kind: 'patches', size: 10, keep: 0.5 },
          { kind: 'dabs', keep: 0.6 },
        ],
      },
    },
    {
      label: 'Watercolour wash',
      says: 'Soft patches of thin paint, with dark rims.',
      words: 'watercolor wash pigment painterly simplify',
      look: {
        blend: 'normal',
        strength: 1,
        treatments: [{ kind: 'patches', passes: 2, keep: 0.5 }, { kind: 'ripple', amount: 2, size: 45 }, { kind: 'pigment' }],
      },
    },
    {
      label: 'Poster shapes',
      says: 'A few flat colours, taken from the picture.',
      words: 'poster posterise cutout flat screen print stencil simplify',
      look: { blend: 'normal', strength: 1, treatments: [{ kind: 'shapes', keep: 0.5 }] },
    },
    {
      label: 'Glow',
      says: 'Lights spread softly over the picture.',
      words: 'bloom soft dream diffuse halation',
      look: { blend: 'normal', strength: 1, treatments: [{ kind: 'glow' }] },
    },
    {
      label: 'Two tones',
      says: 'One colour for shadows, one for highlights.',
      words: 'split toning grade tint colour',
      look: { blend: 'normal', strength: 1, treatments: [{ kind: 'two-tones' }] },
    },
  ],
  schema: z.object({ kind: z.literal('below') }),
  is: 'below',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
