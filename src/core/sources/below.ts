import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'below',
  label: 'What lies below',
  schema: z.object({ kind: z.literal('below') }),
  readsBelow: true,
  isBelow: true,
  fill({ machine }, tile, _coat, below) {
    machine.bytes.copyWithin(tile.ptr, below.ptr, below.ptr + 4 * below.stride);
  },
});
