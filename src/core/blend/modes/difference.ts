import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "difference". */
export default defineMode({
  id: 'difference',
  label: 'Difference',
  group: 'compare',
  kernel: 10,
  triedFirst: false,
  help: 'Shows the difference between the two.',
});
