import { choice } from '../../schema';

/** What a part that looks at pixels looks at. */
export const ofField = choice(
  'Looks at',
  [
    { value: 'photo', label: 'The photo' },
    { value: 'below', label: 'Coats below' },
  ],
  'photo',
);
