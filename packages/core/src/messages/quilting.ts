/** Why an outline is no block, and what is said of its templates and pages. */
export const quilting = {
  nothingDrawn: 'There is no block yet: trace one, or draw its seams.',
  enclosesNothing: 'The lines enclose no patch. Join their ends in Trace, or draw corners together within a larger distance.',
  allowanceTooWide: (patch: string, allowance: string) =>
    `A seam allowance of ${allowance} is wider than patch ${patch} has room for. Type a smaller one, or a larger finished size.`,
  looseEnd: (x: string, y: string) => `A seam ends in the middle of a patch at ${x}, ${y}. Draw it on to the next seam, or remove it.`,
  liesWithin: (patch: string) => `Something lies inside patch ${patch} without touching its edge. Appliqué it, or draw seams to it.`,
  mustBeSetIn: (count: number, patches: string) =>
    `${count} patches (${patches}) share no seam that runs right across: they have to be set in at their corners.`,
  movedFar: (count: number, most: string) =>
    `${count === 1 ? 'One corner was' : `${count} corners were`} drawn up to ${most} beside the grid. Check that ${count === 1 ? 'it is' : 'they are'} meant to lie on it.`,
  templates: (block: string) => `${block}: templates`,
  placement: (block: string) => `${block}: placement`,
  placementWord: 'Placement guide',
  placementHow: 'Lay shapes on in the order of the numbers.',
  foundations: (block: string) => `${block}: foundations`,
  shopping: (block: string) => `${block}: fabrics and cutting`,
  patch: (name: string) => `Patch ${name}`,
  cutCount: (count: number, reversed: number) => (reversed > 0 ? `Cut ${count - reversed}, and ${reversed} reversed` : `Cut ${count}`),
  lines: 'Solid: cut. Dashed: sew.',
  printSewn: 'Print at 100 %, and measure the bar first.',
  section: (number: number, count: number) => (count > 1 ? `Section ${number} of ${count}` : 'Foundation'),
  foundationHow: 'Printed mirrored: fabric lies behind the paper. Sew in the order of the numbers.',
  finishedSize: (width: string, height: string) => `Block: ${width} x ${height} finished`,
  quiltSize: (width: string, height: string, blocks: number) =>
    `Quilt: ${width} x ${height}, ${blocks === 1 ? '1 block' : `${blocks} blocks`}`,
  what: 'What',
  figure: 'Figure',
  cutIn: 'Cut at',
  pieces: 'Pieces',
  strips: 'Strips',
  fabric: 'Fabric',
  yards: (yards: string, metres: string) => `${yards} yd (${metres} m)`,
  backing: (panels: number) => (panels === 1 ? 'Backing' : `Backing, ${panels} panels`),
  batting: (width: string, height: string) => `Batting: ${width} x ${height}`,
  binding: (strips: number, width: string) => `Binding: ${strips} strips of ${width}`,
  tooManyCopies: (count: number, most: number) =>
    `${count} templates are more than the ${most} that one file takes. Cut them for one block.`,
  tooManySheets: (most: number) =>
    `The templates take more than ${most} sheets. Cut them for one block, or type the size of a larger sheet.`,
  largerThanStock: (template: string, width: string, height: string) =>
    `Template ${template} is larger than the stock, ${width} x ${height}. Type the size of a larger sheet, or print it on pages.`,
  noSections: 'No part of this block can be pieced on a foundation.',
  severalParts: (parts: number, far: string) =>
    `The lines are ${parts} parts that do not meet: between them the needle is lifted, over ${far} at most. Draw them together to sew in one go.`,
  shortStitches: (count: number, shortest: string) =>
    `${count === 1 ? 'One stitch is' : `${count} stitches are`} shorter than ${shortest}: corners lie too near together there.`,
  crowded: (places: number, layers: number) =>
    `${places === 1 ? 'One place is' : `${places} places are`} sewn over more than ${layers} times: thread piles up there.`,
  sharpTurns: (count: number, degrees: number) =>
    `${count === 1 ? 'One turn is' : `${count} turns are`} sharper than ${degrees}°: the machine has to stop and turn there.`,
  inPasses: (passes: number, throat: string) =>
    `The machine reaches ${throat} at a time: the line is sewn in ${passes} passes, with marks where one goes on in the next.`,
  tooDense: (kilometres: number) => `The line would be ${kilometres} km long. Type a larger spacing or repeat.`,
  tooManyRuns: (runs: number) => `The line would be ${runs} separate lines. Choose fewer places, or a pattern that runs on.`,
  nothingQuilted: 'There is nothing to quilt along: give drawn lines the purpose stitch, or choose a pattern.',
  noLineYet: 'There is no quilting line yet. Choose what to quilt along first.',
  run: (number: number) => `Run ${number}`,
  runOfPass: (pass: number, number: number) => `Pass ${pass}, run ${number}`,
  passMark: 'Mark between passes',
  lineAs: (kind: string) => `Quilting line, ${kind}`,
  lineAbout: 'The line as it is sewn, in one go where it hangs together.',
  linePages: 'Quilting line, pages',
  linePagesAbout: 'The line at full size on pages to print, with marks that meet.',
  lineOf: (block: string) => `${block}: quilting line`,
  lineWord: 'Quilting line',
  stitchTable: 'Stitches',
  stitchTableAbout: 'Where the needle goes down, stitch by stitch, as a table: x, y, command.',
};
