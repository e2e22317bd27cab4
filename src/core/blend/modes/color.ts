import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "color". */
export default defineMode({
  id: 'color',
  label: 'Colour',
  group: 'colour',
  kernel: 14,
  triedFirst: false,
  help: 'Uses the coat’s colour and keeps the tones below.',
});
