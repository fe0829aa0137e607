import type { Job } from '@nuvet/core/job';

/** The ways of making, as a person reads them. */
export const waysOfMaking: Record<Job['making']['way'], string> = {
  laser: 'Laser',
  cnc: 'CNC',
  quilting: 'Quilting',
  foam: 'Foam',
  paper: 'Paper',
  print: '3D print',
};
