import { defineMode } from '../mode';

/** b + 2s − 1, common practice, no source. */
export default defineMode({
  id: 'linear-light',
  label: 'Linear light',
  group: 'contrast',
  kernel: 18,
  triedFirst: false,
  help: 'Adds what is lighter than mid grey and takes away what is darker; mid grey disappears. Strong.',
});
