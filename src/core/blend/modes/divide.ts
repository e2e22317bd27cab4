import { defineMode } from '../mode';

/** b / s, common practice, no source. */
export default defineMode({
  id: 'divide',
  label: 'Divide',
  group: 'compare',
  kernel: 22,
  triedFirst: false,
  help: 'Divides by the material: its dark grain burns light, its own cast is taken out; white disappears.',
});
