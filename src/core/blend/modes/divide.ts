import { defineMode } from '../mode';

/** b / s, common practice, no source. */
export default defineMode({
  id: 'divide',
  label: 'Divide',
  group: 'compare',
  kernel: 22,
  triedFirst: false,
  help: 'Dark grain turns light and the coat’s cast goes; white disappears.',
});
