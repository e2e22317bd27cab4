import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "hue". */
export default defineMode({
  id: 'hue',
  label: 'Hue',
  group: 'colour',
  kernel: 12,
  triedFirst: false,
  help: 'Uses only the hue of the coat.',
});
