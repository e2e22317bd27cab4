import { defineMode } from '../mode';

/** b + s − 1, common practice, no source. */
export default defineMode({
  id: 'linear-burn',
  label: 'Linear burn',
  group: 'darken',
  kernel: 16,
  triedFirst: true,
  help: 'Darker and flatter than multiply; white disappears.',
});
