import { defineMode } from '../mode';

/** 1 where b + s ≥ 1, else 0; design.md, vocabulary. */
export default defineMode({
  id: 'hard-step',
  label: 'Hard step',
  group: 'compare',
  kernel: 23,
  triedFirst: false,
  help: 'Pure colours: each channel is on where picture and material reach white together, and off elsewhere.',
});
