import { defineMode } from '../mode';

/** 1 where b + s ≥ 1, else 0; design.md, vocabulary. */
export default defineMode({
  id: 'hard-step',
  label: 'Hard step',
  group: 'compare',
  kernel: 23,
  triedFirst: false,
  help: 'Pure, poster-like colours without steps between.',
});
