import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "screen". */
export default defineMode({
  id: 'screen',
  label: 'Screen',
  group: 'lighten',
  kernel: 2,
  triedFirst: true,
  help: 'Lays lights on; black film disappears.',
});
