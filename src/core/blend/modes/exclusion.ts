import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "exclusion". */
export default defineMode({
  id: 'exclusion',
  label: 'Exclusion',
  group: 'compare',
  kernel: 11,
  triedFirst: false,
  help: 'A softer difference.',
});
