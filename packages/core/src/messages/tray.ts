/** What cannot be laid in a tray as it is asked, and why. */
export const tray = {
  noObjects: 'There is nothing to lay in a tray yet: photograph the tools on the scale card, and trace them.',
  noCamera: (picture: string) =>
    `“${picture}” does not tell how high the camera was. Type its height over the sheet: without it outlines of high things stay too large.`,
  overCamera: (name: string) => `“${name}” would reach up to the camera. Type how high it is.`,
  nothingLeft: (name: string, height: string) => `Of “${name}” nothing is left at a height of ${height}. Type how high it really is.`,
  cornersTight: (name: string, by: string) =>
    `“${name}” has corners that the cutter is too round for, by ${by}. Type more clearance, or a thinner cutter.`,
  noRoom: (name: string) => `There is no room for “${name}” in the drawer.`,
  overEdge: (name: string, by: string) => `“${name}” reaches ${by} over the drawer's margin. Move it in.`,
  thinWall: (first: string, second: string, wall: string) =>
    `Between “${first}” and “${second}” ${wall} of foam are left. Move them apart.`,
  otherDepth: (name: string, made: string, asked: string) => `“${name}” lies ${made} deep in whole sheets, not ${asked}.`,
  layer: (number: number) => `Sheet ${number}`,
  layerOf: (number: number, thickness: string) => `Sheet ${number} from the top, ${thickness}`,
  trays: (job: string) => `${job}: tray`,
  traysHow: 'Cut along the solid lines.',
};
