import type { Printed } from './said.ts';

const several = (count: number, one: string, more: string): string => (count === 1 ? one : `${count} ${more}`);
const places = (count: number): string => (count === 1 ? 'at one place' : `at ${count} places`);
/** “Piece 1 is”, “3 pieces (Piece 1, Piece 2, …) are”. */
const are = (names: Printed, count: number): string => (count === 1 ? `${names} is` : `${count} pieces (${names}) are`);
const of = (picture: Printed): string => (picture === '' ? '' : `“${picture}”: `);

/** What the proof finds, by what it is told of. */
export const findings = {
  noPicture: 'There is no picture yet. Bring one in first.',
  sizeUnknown: (picture: Printed) => `${of(picture)}The true size is not known. Mark a length that you know, under True up.`,
  sizeFromFile: (picture: Printed) => `${of(picture)}The size rests on the resolution in the file alone. Mark one known length to be sure.`,
  marksDisagree: (picture: Printed, by: Printed) => `${of(picture)}The marks disagree by up to ${by}. Check what was typed, under True up.`,
  unitUnknown: (drawing: Printed) => `“${drawing}” does not state its unit. Check its size under Bring in.`,
  noPieces: 'Nothing is traced yet. The Trace stage finds the outlines.',
  allExcluded: 'Every piece is excluded. Include at least one, under Trace.',
  cutOffByEdge: (names: Printed, count: number) =>
    `${are(names, count)} cut off by the picture’s edge. Exclude what is only the rim of the scan.`,
  largerThanStock: (names: Printed, count: number, width: Printed, height: Printed) =>
    `${are(names, count)} larger than the stock of ${width} x ${height}.`,
  turnForStock: (width: Printed, height: Printed, stockWidth: Printed, stockHeight: Printed) =>
    `The work is ${width} x ${height} as it lies: turn it, or the stock of ${stockWidth} x ${stockHeight}, by a quarter.`,
  togetherLargerThanStock: (width: Printed, height: Printed, stockWidth: Printed, stockHeight: Printed) =>
    `All pieces together take ${width} x ${height}, more than the stock of ${stockWidth} x ${stockHeight}. Move them closer, or cut them in turns.`,
  sizeGone: (name: Printed, wanted: Printed, tolerance: Printed) =>
    `“${name}” must be ${wanted} ± ${tolerance}, but what it was measured on is gone.`,
  sizeOff: (name: Printed, is: Printed, wanted: Printed, tolerance: Printed, off: Printed, isTooLarge: boolean) =>
    `“${name}” is ${is} and must be ${wanted} ± ${tolerance}: ${off} too ${isTooLarge ? 'large' : 'small'}.`,
  crossesItself: (name: Printed, count: number) => `${name} crosses itself ${places(count)}.`,
  crossesItsHoles: (name: Printed, count: number) => `${name} and its holes cross ${places(count)}.`,
  crossesAnother: (name: Printed, other: Printed, count: number) => `${name} and ${other} cross ${places(count)}.`,
  runsTwice: (name: Printed, along: Printed) => `${name} runs twice along ${along} of its own outline.`,
  liesOnTop: (name: Printed, other: Printed, over: Printed) => `${name} lies on top of ${other} over ${over}: it would be cut twice.`,
  sharesOutline: (name: Printed, other: Printed, along: Printed) =>
    `${name} and ${other} share ${along} of outline, which would be cut twice.`,
  open: (name: Printed, gap: Printed) => `${name} is not closed: its ends are ${gap} apart.`,
  purposeUnset: (name: Printed) => `${name} is an open line with no purpose set.`,
  nearMiss: (name: Printed, other: Printed, gap: Printed) => `${name} and ${other} have a ${gap} gap between their ends.`,
  thinWeb: (name: Printed, width: Printed, least: Printed, count: number) =>
    `${name} is ${width} at its thinnest${count > 1 ? `, and thin ${count === 2 ? 'at one more place' : `at ${count - 1} more places`}` : ''}; the minimum is ${least}.`,
  narrowHoles: (name: Printed, count: number, width: Printed, kerf: Printed) =>
    `${name} has ${several(count, 'a hole', 'holes')} of ${width}, narrower than the ${kerf} kerf.`,
  narrowSlot: (name: Printed, width: Printed, kerf: Printed) => `${name} has a slot of ${width}, narrower than the ${kerf} kerf.`,
  narrowPassage: (name: Printed, width: Printed, least: Printed, count: number) =>
    `${name}: a passage of ${width}; at least ${least} must pass${count > 1 ? `, ${count} such places` : ''}.`,
  narrowPassageBetween: (name: Printed, other: Printed, width: Printed, least: Printed, count: number) =>
    `${name} and ${other}: a passage of ${width}; at least ${least} must pass${count > 1 ? `, ${count} such places` : ''}.`,
  tooNear: (name: Printed, other: Printed, apart: Printed, kerf: Printed) =>
    `${name} and ${other} are ${apart} apart, less than the ${kerf} kerf.`,
  insideAnother: (name: Printed, other: Printed) => `${name} sits inside the material of ${other}.`,
  dropsOut: (name: Printed, other: Printed) => `${name} lies loose in a hole of ${other} and would drop out.`,
  stub: (name: Printed, length: Printed) => `${name} is a stub of ${length}.`,
  sliver: (name: Printed, width: Printed) => `${name} is a sliver about ${width} wide.`,
  sliverHoles: (name: Printed, count: number) => `${name} has ${several(count, 'a hole', 'holes')} no wider than a sliver.`,
  spurs: (name: Printed, count: number, longest: Printed) =>
    count === 1
      ? `${name} has a spur of ${longest} that goes out and back.`
      : `${name} has ${count} spurs of up to ${longest} that go out and back.`,
  redundantPoints: (name: Printed, count: number) => `${name} has ${several(count, 'one redundant point', 'redundant points')}.`,
  sharpCorners: (name: Printed, count: number, tool: Printed) =>
    `${name} has ${several(count, 'an inner corner', 'inner corners')} sharper than a tool of ${tool} can cut.`,
};

/** What mends a finding, as its button says it. */
export const mends = {
  removeLoops: 'Remove the loops',
  unite: 'Unite them',
  ignore: 'Ignore',
  excludeOne: 'Exclude one',
  cutOnce: 'Cut it once',
  close: 'Close it',
  crease: 'A crease',
  perforation: 'A perforation',
  engrave: 'Engrave',
  cutAlong: 'Cut along it',
  join: 'Join them',
  exclude: 'Exclude them',
  makeAnyway: 'Make it anyway',
  thicken: 'Thicken it',
  fill: 'Fill them',
  makeHole: 'Make it a hole',
  excludeIt: 'Exclude it',
  bridge: 'Bridge it',
  dropOut: 'Let it drop out',
  cutOff: 'Cut it off',
  removePoints: 'Remove them',
  dogBones: 'Dog-bones there',
  roundIsFine: 'Round is fine',
};
export type MendWord = keyof typeof mends;
