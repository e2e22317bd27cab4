import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "lighten". */
export default defineMode({
  id: 'lighten',
  label: 'Lighten',
  group: 'lighten',
  kernel: 5,
  triedFirst: true,
  help: 'Keeps the lighter of the two, channel by channel.',
});
