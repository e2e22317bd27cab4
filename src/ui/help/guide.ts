/** The guide in the app: what to do, in the order of the work, with a picture where one helps. */
export const guide: readonly { title: string; text: string; picture?: { file: string; alt: string } }[] = [
  {
    title: 'Open a photo',
    text: 'Press “Open a photo”, drop a file, or paste one. It stays in this browser, and the file is never changed. Everything you do can be undone, and is saved by itself.',
  },
  {
    title: 'Start from a look, or add a material',
    text: 'A look is a whole treatment: tap one to try it, tap it again to use it. “Add a material” opens the shelf: tap a texture to try it on the photo, then “Use it”. Coats lie over the photo like sheets; each has a card under the picture.',
    picture: { file: 'bench-phone.png', alt: 'The bench on a phone: the picture, and under it the cards of its coats' },
  },
  {
    title: 'Set its first controls',
    text: 'The tab Blend leads with what matters for a material: only its marks, its colour, how raised it is, how far it follows the form. Multiply darkens, screen lightens, overlay and soft light do both. Then ease the strength.',
  },
  {
    title: 'Keep the face',
    text: 'Under Guards, find faces and people. Eyes and lips stay clean under every coat; “Whole face”, “Face and neck” and “Person” keep more. Open a region to paint on it.',
    picture: { file: 'guards-phone.png', alt: 'Guards on a phone: the regions of a face in colour, each with its amount' },
  },
  {
    title: 'Say where',
    text: 'Under Mask, switch on “Paint” and erase the coat where you do not want it. A soft brush at low strength, in several strokes, looks natural. Add an ellipse, a gradient, tones or colours to the mask.',
    picture: { file: 'where-wide.png', alt: 'The mask of a coat shown in colour over the picture' },
  },
  {
    title: 'Place, tone, surface',
    text: 'Place moves, scales and turns a texture on the picture; the light on it stays where it is, and “Its light”, under Material, moves it. Tone changes its light and colour, never the photo. Surface raises it, lights it and lets it follow the form of the face or of what lies beneath; nudge it by hand where it should lie otherwise. “Give the skin its grain back”, under Skin, does all of it in one tap.',
  },
  {
    title: 'Paint and draw',
    text: 'The looks under Paint turn a photo into watercolour, oil, ink or pencil. One by one: “Other coats” under “Add a material”, then Tone, where each step has its size and keeps faces finer.',
  },
  {
    title: 'Work on the photo',
    text: 'Choose the photo’s card. Crop and straighten it, remove spots, set light, colour and detail. The picture is then shown without coats; “Show coats” brings them back.',
  },
  {
    title: 'Compare',
    text: 'Under the picture, tap or hold “Photo”, “Hide” or “Only”. Hold a card to see the piece up to it. “Compare all modes” shows every mode side by side: tap to try, mark two to wipe between them.',
    picture: { file: 'contact-wide.png', alt: 'A contact sheet: the picture in every blend mode' },
  },
  {
    title: 'Group, lock, choose several',
    text: 'Under More, “Choose several coats”, or hold Shift or Ctrl and click cards. Chosen together they are grouped, hidden, locked, copied or removed. A group has one strength, mode, mask and steps for all its coats; its arrow opens it.',
  },
  {
    title: 'Export',
    text: 'Choose format, size and name, and save the picture. A look can be saved under Presets, for other photos.',
  },
  {
    title: 'See the stages, and keep proofs',
    text: 'The card “Compare” at the end of the coats shows the photo as taken, the stages of the work and the piece as it is: side by side, wiped, or as a difference. “Keep a proof” keeps a state under a name; you can go back to it at any time.',
  },
  {
    title: 'Use it again',
    text: 'Under Presets, “Save as look” keeps what you tick for other photos. “Looks”, on the first screen, lists them; “Batch” lays a look on many photos at once. A material that you have used before offers its last settings under Blend.',
  },
];
