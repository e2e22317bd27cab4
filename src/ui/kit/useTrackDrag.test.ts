import { paceAt } from './useTrackDrag';

it('moves at full pace near the track, at a quarter further away and at a sixteenth beyond, above and below', () => {
  expect([0, 40, 55].map(paceAt)).toEqual([1, 1, 1]);
  expect([56, -80, 111].map(paceAt)).toEqual([0.25, 0.25, 0.25]);
  expect([112, -300].map(paceAt)).toEqual([0.0625, 0.0625]);
});
