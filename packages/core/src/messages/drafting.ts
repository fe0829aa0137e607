/** What stands on plan sheets, and why one cannot be drawn as it is asked. */
export const drafting = {
  nothingToDraw: 'There is nothing to draw yet: trace an outline first.',
  doesNotFit: (scale: string, paper: string) => `At ${scale} the views do not fit on ${paper}. Choose larger paper or a smaller scale.`,
  notReadBack: 'The file of the plan sheet did not come back as it was drawn. It was not made.',
  material: 'Material',
  scale: 'Scale',
  tolerance: 'Tolerance',
  drawnBy: 'Drawn',
  number: 'Number',
  revision: 'Revision',
  part: 'Part',
  count: 'Count',
  size: 'Size',
  detail: (scale: string) => `Detail B, ${scale}`,
};
