import { defineMode } from '../mode';

/** b + 2s − 1, common practice, no source. */
export default defineMode({
  id: 'linear-light',
  label: 'Linear light',
  group: 'contrast',
  kernel: 18,
  triedFirst: false,
  help: 'Very strong light and dark; mid grey disappears.',
});
