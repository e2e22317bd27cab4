import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "color". */
export default defineMode({
  id: 'color',
  label: 'Colour',
  group: 'colour',
  kernel: 14,
  triedFirst: false,
  help: 'Takes hue and saturation of the coat, keeps the tones below.',
});
