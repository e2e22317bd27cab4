import { defineMode } from '../mode';

/** W3C Compositing and Blending Level 2, plus-lighter. */
export default defineMode({
  id: 'plus-lighter',
  label: 'Plus lighter',
  group: 'lighten',
  kernel: 25,
  triedFirst: false,
  help: 'Adds light, like two light leaks; black disappears.',
});
