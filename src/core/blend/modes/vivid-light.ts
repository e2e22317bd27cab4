import { defineMode } from '../mode';

/** colour burn by 2s up to mid grey, colour dodge by 2s − 1 above, common practice, no source. */
export default defineMode({
  id: 'vivid-light',
  label: 'Vivid light',
  group: 'contrast',
  kernel: 19,
  triedFirst: false,
  help: 'Hard grain and strong colour; mid grey disappears.',
});
