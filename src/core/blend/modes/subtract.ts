import { defineMode } from '../mode';

/** b − s, common practice, no source. */
export default defineMode({
  id: 'subtract',
  label: 'Subtract',
  group: 'compare',
  kernel: 21,
  triedFirst: false,
  help: 'Light grain turns dark; black disappears.',
});
