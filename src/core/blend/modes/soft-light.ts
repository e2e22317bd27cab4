import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "soft-light". */
export default defineMode({
  id: 'soft-light',
  label: 'Soft light',
  group: 'contrast',
  kernel: 9,
  triedFirst: true,
  help: 'A gentle overlay, about half as strong.',
});
