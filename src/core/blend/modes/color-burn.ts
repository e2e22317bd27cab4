import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "color-burn". */
export default defineMode({
  id: 'color-burn',
  label: 'Colour burn',
  group: 'darken',
  kernel: 7,
  triedFirst: true,
  help: 'Deepens darks and saturates them.',
});
