/** Why there is no section, no core and no wire path. */
export const foam = {
  noNaca: (digits: string) => `“${digits}” names no section of four digits: write it as 2412, or 0012 for one without camber.`,
  fewPoints: (points: number) => `A section needs nine points or more; there are ${points}.`,
  noNose: 'The points do not go round a leading edge: list them from the trailing edge over the upper side and back, or by sides.',
  crossesItself: 'The section crosses itself. Check the order of its points.',
  tooLong: (lines: number) => `The file has more than ${lines} lines. A section has a few hundred points at most.`,
  noCoordinates: (line: number) => `Line ${line} holds no coordinates: two numbers are needed.`,
  skinTooThick: (face: string, skin: string) => `Sheeting of ${skin} leaves nothing of the core at the ${face}. Type a thinner one.`,
  nothingLeft: (face: string) => `The allowances at both edges leave nothing of the core at the ${face}.`,
  sparOutside: (face: string) => `A spar slot does not lie within the core at the ${face}.`,
  sparTooDeep: (face: string) => `A spar slot is deeper than the core at the ${face}.`,
  facesTooClose: 'Root and tip have to lie apart: type a span.',
  towersTooClose: 'The foam has to lie between the towers: type a larger distance between them, or another place.',
  noProgramLine: (line: number) => `Line ${line} of the program means nothing to a wire.`,
};
