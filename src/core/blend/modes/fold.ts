import { defineMode } from '../mode';

/** 1 − |1 − b − s|; design.md, vocabulary. */
export default defineMode({
  id: 'fold',
  label: 'Fold',
  group: 'compare',
  kernel: 24,
  triedFirst: false,
  help: 'Lights and darks of both turn over past white, as in a solarised print.',
});
