import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 1, blend mode "darken". */
export default defineMode({
  id: 'darken',
  label: 'Darken',
  group: 'darken',
  kernel: 4,
  triedFirst: true,
  help: 'Keeps the darker of the two, channel by channel.',
});
