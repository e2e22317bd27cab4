/** A worked example: what it is, how it was made, and the sample that shows it. */
export interface Work {
  title: string;
  steps: readonly string[];
  /** Id of the sample piece. */
  sample: string;
}

/** Twelve works from beginning to end, each with a sample piece to take apart. */
export const works: readonly Work[] = [
  {
    title: 'A textured portrait',
    sample: 'officer',
    steps: [
      'Add plaster in overlay and foxed paper in multiply: two materials with different modes.',
      'In Mask, add an ellipse around the face, erase the coat there, and ease its density.',
      'Under Guards, keep the eyes and lips; a subject of about 30 % keeps the person lighter than the background.',
    ],
  },
  {
    title: 'Cracked skin',
    sample: 'cracked',
    steps: [
      'Make the skin a little greyer with a coat of what lies below.',
      'Paint marks along the face with a tip cut from a net of cracks; press them in with relief, and give them a glow.',
      'Lay the original colours over it in overlay, and a gradient of two lights over everything.',
    ],
  },
  {
    title: 'A shaped vignette from paper',
    sample: 'lamp',
    steps: [
      'Add a burnt paper in multiply, and push its border outside the picture: Place, Scale.',
      'In Mask, add an ellipse, erase the coat inside it, and set its feather and density.',
    ],
  },
  {
    title: 'A print left in the sun',
    sample: 'faded',
    steps: [
      'On the photo, lower the saturation, lift the shadows and lower the highlights.',
      'Add one paper in soft light and one in multiply, then a vignette that yellows the rim.',
      'Add film grain above everything, and a white border.',
    ],
  },
  {
    title: 'Ink and wash',
    sample: 'inked',
    steps: [
      'Tone: patches and pigment turn the photo into a wash.',
      'Put a white sheet over it whose mask is broad strokes, so that the wash shows through.',
      'Add ink lines from the photo in multiply, and cold-press paper on top. Exchange the paper freely.',
    ],
  },
  {
    title: 'An old mailed card',
    sample: 'dusk',
    steps: [
      'Multiply a picture of clouds into the empty sky, and erase it from the buildings with a soft brush.',
      'Add two tones: blue shadows and yellow highlights.',
      'Lay stained paper in overlay with less saturation, and leave a little of its black border in.',
    ],
  },
  {
    title: 'Skin that was smoothed too far',
    sample: 'retouched',
    steps: [
      'Under “Add a material”, Skin: “Give the skin its grain back” does all of this in one tap.',
      'Surface: the grain is lit as the face is, follows its form, and softens where the photo is out of focus.',
      'Ease the strength to about 80 %.',
    ],
  },
  {
    title: 'From a photo to a painting',
    sample: 'painted',
    steps: [
      'Simplify the photo with patches, and paint it with brush strokes.',
      'Light it by a canvas, and lay the weave over it in linear burn.',
      'Bring fine detail back in overlay, and mend a cast with the parade under Finish.',
    ],
  },
  {
    title: 'Film grain',
    sample: 'grained',
    steps: [
      'Turn the photo black and white, then dodge and burn with soft strokes.',
      'Add film grain above everything. Its size, clumping and colour can be changed at any time.',
    ],
  },
  {
    title: 'A poster',
    sample: 'poster',
    steps: [
      'Tone: shapes draw the photo in a few flat colours.',
      'Add ink lines in multiply, a margin of plain colour with an opening, and rag paper.',
    ],
  },
  {
    title: 'A mural on a wall',
    sample: 'mural',
    steps: [
      'Lay brick over the photo, and cut the person out on top of it.',
      'Simplify the cut-out to poster shapes with an outline, in linear burn; add it again in soft light.',
      'Let both follow the wall, put everything into perspective, and darken the far side with a gradient.',
    ],
  },
  {
    title: 'A cracked picture on worn film',
    sample: 'worn',
    steps: [
      'Paint dark ground into the cracks with textured tips.',
      'Add a double image, scratches and dirt in screen, and streaks.',
      'Lay the photo again in overlay, and a torn frame on top.',
    ],
  },
];
