import { defineMode } from '../mode';

/** 1 − |1 − b − s|; design.md, vocabulary. */
export default defineMode({
  id: 'fold',
  label: 'Fold',
  group: 'compare',
  kernel: 24,
  triedFirst: false,
  help: 'Reverses the brightest parts, like a solarised print.',
});
