import * as z from 'zod';

/**
 * Something small that is taken out of the photo: a path of a round tip over it, and where what replaces it comes from. All of it belongs to
 * the file, so that a later crop, turn or lens leaves it alone: points and offset in fractions of the file's width and height, `size` (the
 * tip's diameter) in 1/2000 of its long side.
 */
export const spotSchema = z
  .object({
    points: z
      .array(z.tuple([z.number().min(-1).max(2), z.number().min(-1).max(2)]))
      .min(1)
      .max(2000),
    size: z.number().min(0.5).max(1000).default(20),
    /** From the spot to its source; found by itself when left out. */
    from: z.tuple([z.number().min(-1).max(1), z.number().min(-1).max(1)]).optional(),
  })
  .strict();
export type Spot = z.output<typeof spotSchema>;

export const spotsSchema = z.array(spotSchema).max(500);

/** The same spots under the same key, for keeping the mended picture. */
export const spotsKey = (spots: readonly Spot[]): string => JSON.stringify(spots.map(({ points, size, from }) => [points, size, from]));
