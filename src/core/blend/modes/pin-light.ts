import { defineMode } from '../mode';

/** min(b, 2s) up to mid grey, max(b, 2s − 1) above, common practice, no source. */
export default defineMode({
  id: 'pin-light',
  label: 'Pin light',
  group: 'contrast',
  kernel: 20,
  triedFirst: false,
  help: 'Shows only the darkest and lightest parts of the coat.',
});
