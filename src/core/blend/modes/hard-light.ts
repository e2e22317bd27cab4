import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "hard-light". */
export default defineMode({
  id: 'hard-light',
  label: 'Hard light',
  group: 'contrast',
  kernel: 8,
  triedFirst: true,
  help: 'Like overlay, led by the coat: strong texture.',
});
