import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "luminosity". */
export default defineMode({
  id: 'luminosity',
  label: 'Luminosity',
  group: 'colour',
  kernel: 15,
  triedFirst: false,
  help: 'Uses the coat’s tones and keeps the colour below.',
});
