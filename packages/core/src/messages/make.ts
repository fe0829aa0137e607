/** Why a cut or a file is not as wanted. */
export const make = {
  noFileWasMade: (message: string) => `${message} No file was made.`,
  fileOff: (kind: string, largest: string, tolerance: string) =>
    `The ${kind} file would be off by ${largest} mm, more than the ${tolerance} mm that it may. It was not made.`,
  notSeenInPng: (name: string) => `${name} would not be seen in the PNG file. It was not made.`,
  kerfFails: (name: string) => `The kerf could not be taken off ${name}. Look for crossings and spikes in its outline.`,
  vanishes: (name: string) => `${name} vanishes: nothing of it is left beside the kerf.`,
  holesCloseUp: (fewer: number, name: string) =>
    `${fewer === 1 ? 'A hole' : `${fewer} holes`} of ${name} close up or run together: narrower than the kerf.`,
  slotClosesUp: (name: string) => `A slot of ${name} closes up at its mouth: narrower than the kerf.`,
  noRoomOnPaper: 'Margins and overlap leave no room on this paper.',
  nothingToLayOut: 'There is nothing to lay out: type how many copies are cut, or trace an outline.',
  tooManyCopies: (count: number, most: number) =>
    `${count} copies are more than the ${most} that can be laid out at once. Cut some of them later.`,
};
