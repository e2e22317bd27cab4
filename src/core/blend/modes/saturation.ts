import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "saturation". */
export default defineMode({
  id: 'saturation',
  label: 'Saturation',
  group: 'colour',
  kernel: 13,
  triedFirst: false,
  help: 'Uses only the saturation of the coat.',
});
