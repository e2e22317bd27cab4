/** What the stores say: notices, sentences of errors, names of steps that can be undone. The screens’ words are in src/ui/words.ts. */
export const words = {
  groups: {
    group: 'Group',
    ungroup: 'Ungroup',
    duplicate: (count: number) => (count === 1 ? 'Duplicate the coat' : `Duplicate ${count} coats`),
    remove: (count: number) => (count === 1 ? 'Remove the coat' : `Remove ${count} coats`),
    show: (count: number) => (count === 1 ? 'Show the coat' : `Show ${count} coats`),
    hide: (count: number) => (count === 1 ? 'Hide the coat' : `Hide ${count} coats`),
    tooDeep: 'Groups can lie at most four deep in each other.',
    lock: 'Lock',
    unlock: 'Unlock',
  },
  bench: {
    locked: 'This coat is locked. Unlock it to change it.',
    thisPieceIsOpenIn: 'This piece is open in another tab; choose “Work here” to change it in this one.',
    onlyTheLastSteps: (count: number) => `Only the last ${count} steps can be undone.`,
    theStepsFromBeforeThe: 'The steps from before the last reload are damaged, so they cannot be undone. Your piece has not changed.',
    add: (name: string) => `Add ${name}`,
    duplicateTheCoat: 'Duplicate the coat',
    removeTheCoat: 'Remove the coat',
    moveTheCoat: 'Move the coat',
  },
  brush: {
    nudging: {
      push: (coat: string, strength: string) => `Pushing ${coat}, ${strength}`,
      swell: (coat: string, strength: string) => `Swelling ${coat}, ${strength}`,
      pinch: (coat: string, strength: string) => `Pinching ${coat}, ${strength}`,
      turn: (coat: string, strength: string) => `Turning ${coat}, ${strength}`,
      ease: (coat: string, strength: string) => `Easing ${coat} back, ${strength}`,
      hold: (coat: string) => `Holding ${coat} still`,
    },
    around: (percent: string) => `, ${percent} around`,
    restoring: (coat: string, percent: string, around: string) => `Restoring ${coat}, ${percent}${around}`,
    settingToHereBy: (coat: string, percent: string, percent2: string) => `Setting ${coat} to ${percent} here, by ${percent2}`,
    erasing: (coat: string, percent: string, around: string) => `Erasing ${coat}, ${percent}${around}`,
    lightening: 'Lightening',
    darkening: 'Darkening',
    painting: (coat: string) => `Painting on ${coat}`,
    erasingMarks: (coat: string) => `Erasing marks of ${coat}`,
    rulingMarks: (coat: string) => `Tap, or drag, for a straight line on ${coat}`,
  },
  database: {
    notEnoughRoom: (needed: string, offered: string | null) =>
      `Not saved: it needs ${needed}, and this browser offers ${offered ?? 'no more'}; delete pieces that you no longer need.`,
    storeUnusable: (reason: string) => `Not saved yet: the browser’s store could not be used (${reason || 'it gives no reason'}).`,
  },
  light: {
    noFace: 'No face was found to read the light from. Set it with the dial.',
    noSkin: 'No face was found, so there is no skin to put it on. If there is one, add it under Guards.',
    notSure: 'The light on the face is too even to tell where it comes from; it is set to come from the front, a little above.',
    found: (direction: number, elevation: number) => `The light on the face comes from ${direction}°, ${elevation}° high.`,
  },
  editing: {
    showTheCoat: 'Show the coat',
    hideTheCoat: 'Hide the coat',
  },
  export: {
    aPictureIsBeingMade: 'A picture is being made already; wait for it or stop it.',
    theDeviceDidNotShare: 'The device did not share the picture. Save it instead.',
    theBrowserDidNotLet: 'The browser did not let Dermatex write to the clipboard; save the file instead.',
  },
  files: {
    isDamagedAPartOf: (name: string) =>
      `“${name}” is damaged: a part of its data is missing and would be grey or torn; copy it again from where it came.`,
    cannotBeDecodedItsData: (name: string) => `“${name}” cannot be decoded: its data is damaged; copy it again from where it came.`,
  },
  guards: {
    guardFacesAndPeople: 'Guard faces and people',
  },
  finish: {
    curves: 'Finishing curves',
    fixCast: 'Fix colour cast of the piece',
    castFixed: (channel: string) => `Colour cast fixed with a ${channel} curve on top.`,
    addedOnTop: (name: string) => `${name} added on top.`,
  },
  marks: {
    irises: 'Irises',
    noEyes: 'No eyes were found here. Add Marks and paint over them in colour mode.',
  },
  looks: {
    look: (name: string) => `Look ${name}`,
  },
  layers: {
    photo: 'The photo',
    allCoats: 'All coats together',
    stack: 'Group',
    baked: (name: string) => `${name} (with all below it)`,
    layer: 'Layer',
    isNone: (name: string) => `“${name}” is not an OpenRaster file; choose one that holds layers.`,
    pictureMissing: (name: string, src: string) => `“${name}” lists a layer whose picture is not in it (${src}); save it again where it was made.`,
    pictureDamaged: (name: string, src: string) => `A layer of “${name}” cannot be decoded (${src}); save it again where it was made.`,
  },
  offline: {
    newVersion: 'A new version of Dermatex is ready. It starts once every tab of it is closed.',
  },
  own: {
    deletedFromTheShelf: (name: string) => `“${name}” deleted from the shelf. Pieces that use it keep it.`,
    undo: 'Undo',
    pastedPicturePng: 'Pasted picture.png',
    addedToTheShelf: (name: string) => `“${name}” added to the shelf`,
    picturesAddedToTheShelf: (count: number) => `${count} pictures added to the shelf`,
    leftOut: (count: number) => `; ${count} were left out`,
    theBorderOfItsScan: 'the border of its scan is trimmed',
    theBordersOfScansAre: (count: number) => `the borders of ${count} scans are trimmed`,
    theBorderOfAScan: 'the border of a scan is trimmed',
    keepTheBorder: 'Keep the border',
    keepTheBorders: 'Keep the borders',
  },
  pictures: {
    theFileCouldNotBe: 'The file could not be read.',
    thePictureOfThisPiece: 'The picture of this piece is no longer in the browser’s store; open the photo again.',
  },
  pieces: {
    piece: 'Piece',
    theSampleCouldNotBe: 'The sample could not be read from the server; start it again and retry.',
  },
  backup: {
    isNone: (name: string) => `“${name}” is not a backup of Dermatex; choose the file that was saved by “Back up everything”.`,
    fromBackup: (name: string) => `${name}, from the backup`,
  },
  batch: {
    photoIsGone: (name: string) => `“${name}” is not kept in this browser any more; choose the photos again.`,
  },
  proofs: {
    goBackTo: (name: string) => `Go back to ${name}`,
    numbered: (n: number) => `Proof ${n}`,
  },
  ready: {
    removeASpot: 'Remove a spot',
    findTheSource: 'Find the source',
  },
  recipes: {
    theLookUsesThePicture: (named: string) =>
      `The look uses the picture “${named}”, which is not on your shelf. Import it, then apply the look again.`,
  },
  records: {
    aDamagedPiece: 'A damaged piece',
    thisPieceWasMadeBy: 'This piece was made by a newer version of Dermatex; open it there. It is left as it is.',
    recordIsDamaged: (reason: string) => `This piece’s record is damaged and is left as it is (${reason}).`,
    fromAnotherTab: (name: string) => `${name}, from another tab`,
  },
  saving: {
    wasChangedInAnotherTab: (name: string, copy: string) =>
      `“${name}” was changed in another tab as well. Both are kept: what you have here is now “${copy}”.`,
  },
  storage: {
    aRecordOfThisBrowsers: (key: string) => `A record of this browser’s store (“${key}”) was damaged and has been set aside; everything else opens.`,
  },
  supplier: {
    catalogueDamaged: 'The supplier’s catalogue arrived damaged; try again.',
    theSupplierDoesNotAnswer: 'The supplier does not answer; your own shelf works without it, and you can ask again later.',
    theSupplierDidNotSend: (name: string) => `The supplier did not send “${name}”; try again later.`,
    downloadBrokeOff: (name: string) => `The download of “${name}” broke off; download it again.`,
    isNotWhatTheCatalogue: (name: string) => `“${name}” is not what the catalogue says it is, so nothing was kept.`,
    arrivedDamaged: (name: string) => `“${name}” arrived damaged, so nothing was kept; download it again.`,
  },
} as const;
