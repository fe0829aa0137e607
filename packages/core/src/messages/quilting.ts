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
  templateOff: (patch: string, off: string) => `The template of patch ${patch} would be off by ${off}. It was not made.`,
  templates: (block: string) => `${block}: templates`,
  foundations: (block: string) => `${block}: foundations`,
  shopping: (block: string) => `${block}: fabrics and cutting`,
  patch: (name: string) => `Patch ${name}`,
  cutCount: (count: number, reversed: number) => (reversed > 0 ? `Cut ${count - reversed}, and ${reversed} reversed` : `Cut ${count}`),
  pageOf: (page: number, pages: number) => `page ${page} of ${pages}`,
  partOf: (pattern: string, row: number, column: number, rows: number, columns: number) =>
    `${pattern}: row ${row} of ${rows}, column ${column} of ${columns}`,
  lines: 'Solid: cut. Dashed: sew.',
  printSewn: 'Print at 100 %, and measure the bar first.',
  section: (number: number, count: number) => (count > 1 ? `Section ${number} of ${count}` : 'Foundation'),
  foundationHow: 'Printed mirrored: fabric lies on the other side. Sew along the lines in the order of the numbers.',
  grain: 'grain',
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
  noSections: 'No part of this block can be pieced on a foundation.',
  nothingQuilted: 'There is nothing to quilt along.',
};
