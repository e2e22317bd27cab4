import { defineMode } from '../mode';

/** b + s, common practice, no source. */
export default defineMode({
  id: 'linear-dodge',
  label: 'Linear dodge',
  group: 'lighten',
  kernel: 17,
  triedFirst: false,
  help: 'Brighter than screen, and clips sooner; black disappears.',
});
