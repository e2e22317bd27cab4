import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 2, plus-lighter. */
export default defineMode({
  id: 'plus-lighter',
  label: 'Plus lighter',
  group: 'lighten',
  kernel: 25,
  triedFirst: false,
  help: 'Adds the material’s light by its strength, unmixed: two light leaks on each other; black disappears.',
});
