import type { Sample } from './pieces';

/** Pieces of the Skerry Light archive that ship with the application; the keepers and the island are made up. */
export const samples: Sample[] = [
  {
    id: 'keeper',
    name: 'The old keeper',
    says: 'Aged paper and craquelure, cleared from the face',
    photo: 'keeper.jpg',
    recipe: 'keeper.json',
    picture: 'keeper.jpg',
  },
  {
    id: 'dusk',
    name: 'The light at dusk',
    says: 'A made-up sky multiplied in, stained paper, a little black border',
    photo: 'light-at-dusk.jpg',
    recipe: 'dusk.json',
    picture: 'dusk.jpg',
  },
  {
    id: 'wall',
    name: 'Harbour wall',
    says: 'Rough plaster and paper over brick, cleared from the noticeboard',
    photo: 'harbour-wall.jpg',
    recipe: 'wall.json',
    picture: 'wall.jpg',
  },
  {
    id: 'officer',
    name: 'The signal officer',
    says: 'Plaster and foxed paper, held back from eyes and lips',
    photo: 'signal-officer.jpg',
    recipe: 'officer.json',
    picture: 'officer.jpg',
  },
  {
    id: 'lamp',
    name: 'Lamp and lemons',
    says: 'A burnt border pushed outside, darkening around a soft box',
    photo: 'lamp-and-lemons.jpg',
    recipe: 'lamp.json',
    picture: 'lamp.jpg',
  },
  {
    id: 'poster',
    name: 'Keeper, poster',
    says: 'Cut out in four tones and laid on a flaking wall',
    photo: 'keeper.jpg',
    recipe: 'poster.json',
    picture: 'poster.jpg',
  },
];
