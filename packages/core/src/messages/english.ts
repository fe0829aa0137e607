import { figures } from './figures.ts';
import { files } from './files.ts';
import { findings, mends } from './findings.ts';
import { folding } from './folding.ts';
import { job } from './job.ts';
import { lengths } from './lengths.ts';
import { make } from './make.ts';
import { trueUp } from './true-up.ts';

/** Every text of the core that a person reads, by what it is about. */
export const english = { findings, mends, job, lengths, trueUp, figures, folding, make, files };
