import * as z from 'zod';
import { fillOfFile } from '../ready/photo';
import { share } from '../schema';
import { fillLaid } from './laid';
import { defineSource } from './source';

export const cutoutSchema = z.object({
  kind: z.literal('cutout'),
  /** File name, relative to the recipe; inside a piece the key of a kept picture. The piece's own photo when left out. */
  file: z.string().optional(),
  width: z.number().int().positive().optional(),
  height: z.number().int().positive().optional(),
  clean: share('Clean the edge', 1, { help: 'Takes the colour of the old background out of hair and rims.' }),
});

/** The subject of the photo, in its place, or of another picture where it is laid; clear around it, with soft edges. */
export default defineSource({
  kind: 'cutout',
  label: 'Cut-out',
  schema: cutoutSchema,
  laid: true,
  fill(context, tile, coat) {
    const { machine, scratch } = context;
    const { file, clean } = coat.source as z.output<typeof cutoutSchema>;
    if (!coat.cut) throw new Error('The cut-out has not been made.');
    const mark = scratch.mark();
    const { x, y, width, height } = tile;
    const [alpha, edge] = [coat.cut.alpha, coat.cut.edge].map((picture) => {
      const part = scratch.tile({ x, y, width, height });
      // Laid as the whole picture is, whatever the size of its alpha.
      if (file) fillLaid(context, part, { ...coat, picture, nominal: coat.nominal ?? coat.picture, held: picture });
      else fillOfFile(context, picture, part);
      return part;
    });
    if (file) fillLaid(context, tile, coat);
    else context.drawPhoto(tile);
    machine.kernels.cutOut(tile.ptr, tile.stride, tile.count, alpha.ptr, edge.ptr, edge.stride, clean);
    scratch.release(mark);
  },
});
