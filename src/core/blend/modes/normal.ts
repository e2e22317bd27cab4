import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "normal". */
export default defineMode({
  id: 'normal',
  label: 'Normal',
  group: 'replace',
  kernel: 0,
  triedFirst: false,
  help: 'Covers the coats below.',
});
