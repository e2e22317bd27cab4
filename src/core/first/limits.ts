import type { Coat } from '../piece/schema';
import { defineFirst } from './control';

const AWAY: Coat['limits'] = [0.08, 0.3, 0.75, 0.95];
const ALL: Coat['limits'] = [0, 0, 1, 1];

/** Skin grain in the deepest darks and the highlights looks pasted on. */
export default defineFirst({
  control: 'limits',
  shape: 'switch',
  label: () => 'Away from darks and lights',
  help: 'Leaves the darkest and lightest tones clean.',
  begins: 1,
  read: ({ limits }) => (limits.some((v, i) => v !== ALL[i]) ? 1 : 0),
  write: (_coat, _spec, value) => ({ limits: value ? AWAY : ALL }),
});
