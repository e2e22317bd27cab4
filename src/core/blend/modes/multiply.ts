import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "multiply". */
export default defineMode({
  id: 'multiply',
  label: 'Multiply',
  group: 'darken',
  kernel: 1,
  triedFirst: true,
  help: 'Lays darks on; white paper disappears.',
});
