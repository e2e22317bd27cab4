import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "overlay". */
export default defineMode({
  id: 'overlay',
  label: 'Overlay',
  group: 'contrast',
  kernel: 3,
  triedFirst: true,
  help: 'Darks darken, lights lighten; mid grey disappears.',
});
