import * as z from 'zod';
import type { InputSpec } from '../graph/node';
import type { Need } from '../graph/needs';
import { cutSubjectSchema, type CutSubject } from '../guards/subject';
import { fillLaid } from '../lay/laid';
import { share } from '../schema';
import { defineSource } from './source';

export const cutoutSchema = z.object({
  kind: z.literal('cutout'),
  /** File name, relative to the recipe; inside a piece the key of a kept picture. The piece's own photo when left out. */
  file: z.string().optional(),
  width: z.number().int().positive().optional(),
  height: z.number().int().positive().optional(),
  /** How the subject of another picture was corrected: strokes and paths in fractions of its file. */
  subject: cutSubjectSchema.optional(),
  clean: share('Clean the edge', 1, { help: 'Takes the colour of the old background out of hair and rims.' }),
});

const alpha = (file?: string, subject?: CutSubject): Need => ({ need: 'cutout', part: 'alpha', file, subject });
const edge = (file?: string, subject?: CutSubject): Need => ({ need: 'cutout', part: 'edge', file, subject });

/** The subject of the photo, in its place, or of another picture where it is laid; clear around it, with soft edges. */
export default defineSource({
  kind: 'cutout',
  label: 'Cut-out',
  offers: [{ label: 'Cut out the subject', says: 'The person or thing on a coat of its own.', words: 'mask background remove' }],
  schema: cutoutSchema,
  laid: true,
  firstLook: { blend: 'normal', strength: 1 },
  guards: 1,
  file: ({ file }) => file,
  inputs: ({ file }): Record<string, InputSpec> => (file ? {} : { photo: 'photo', alpha: { framed: alpha() }, edge: { framed: edge() } }),
  needs: ({ file, subject }): Record<string, Need> =>
    file ? { picture: { need: 'photo', file }, alpha: alpha(file, subject), edge: edge(file, subject) } : {},
  fill(context, tile, { file, clean }) {
    const { machine, scratch, lay } = context;
    const mark = scratch.mark();
    const part = (name: 'alpha' | 'edge') => {
      if (!file) return context.read(name, tile);
      // Laid as the whole picture is, whatever the size of this one.
      const { picture } = context.needed(name, 'picture');
      const { picture: whole } = context.needed('picture', 'picture');
      const { x, y, width, height } = tile;
      const out = scratch.tile({ x, y, width, height });
      fillLaid(context, out, { picture, nominal: whole, held: picture }, lay);
      return out;
    };
    const [alphaTile, edgeTile] = [part('alpha'), part('edge')];
    if (file) fillLaid(context, tile, context.needed('picture', 'picture'), lay);
    else {
      const photo = context.read('photo', tile);
      machine.bytes.copyWithin(tile.ptr, photo.ptr, photo.ptr + 4 * photo.stride);
    }
    machine.kernels.cutOut(tile.ptr, tile.stride, tile.count, alphaTile.ptr, edgeTile.ptr, edgeTile.stride, clean);
    scratch.release(mark);
  },
});
