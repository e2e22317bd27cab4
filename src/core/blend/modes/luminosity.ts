import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "luminosity". */
export default defineMode({
  id: 'luminosity',
  label: 'Luminosity',
  group: 'colour',
  kernel: 15,
  triedFirst: false,
  help: 'Takes the tones of the coat, keeps the colour below.',
});
