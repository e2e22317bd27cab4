import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "color-dodge". */
export default defineMode({
  id: 'color-dodge',
  label: 'Colour dodge',
  group: 'lighten',
  kernel: 6,
  triedFirst: false,
  help: 'Brightens strongly; light parts turn white.',
});
