/** What the shelf says of text that it cannot read. */
export const shelf = {
  noColour: (typed: string) => `“${typed}” is no colour; write it as #c8a26b.`,
  noChoice: (typed: string, choices: string) => `“${typed}” is none of ${choices}.`,
  noNumber: (typed: string) => `“${typed}” is no number.`,
  noSheet: (typed: string) => `“${typed}” is no sheet; write width x height x count, such as 600x400x3.`,
  csvTooLarge: (mb: number) => `The file is larger than ${mb} MB. Bring it in by parts.`,
  csvTooLong: (lines: number) => `The file has more than ${lines} lines. Bring it in by parts.`,
  csvHeading: (columns: string) => `The first line must name the columns: ${columns}.`,
  tooManyFields: (count: number, columns: number) => `${count} fields, but only ${columns} columns.`,
  nameMissing: 'the name is missing',
  tooSmall: (bound: string) => `must be ${bound} or more.`,
  tooLarge: (bound: string) => `must be ${bound} or less.`,
  notPossible: 'is not possible here.',
  nameTwice: (name: string, line: number) => `“${name}” stands in line ${line} already.`,
};
