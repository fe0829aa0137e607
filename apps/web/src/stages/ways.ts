import type { Job } from '@nuvet/core/job';
import { words } from '@/words';

/** The ways of making, as a person reads them. */
export const waysOfMaking: Record<Job['making']['way'], string> = {
  laser: words.job.laser,
  cnc: 'CNC',
  quilting: words.job.quilting,
  foam: words.job.foam,
  paper: words.job.paper,
  print: words.job.print3d,
};
