// What random laws start from, and how often they are tried. A check of the project gives the same answer twice for the same code, so
// the seed stands here, and a plain run tries each law as often as fits into minutes. `npm run test:deep` tries them at length, with
// another seed each time; NUVET_SEED and NUVET_RUNS set either by hand.
import { configureGlobal, readConfigureGlobal } from 'fast-check';

const asked = process.env.NUVET_SEED;
export const seed = asked === undefined ? 20261127 : asked === 'any' ? Math.floor(Math.random() * 0x7fffffff) : Number(asked);
if (!Number.isInteger(seed)) throw new Error(`NUVET_SEED is a whole number or “any”, not “${asked}”.`);
configureGlobal({ ...readConfigureGlobal(), seed });

const share = Number(process.env.NUVET_RUNS ?? 0.25);
if (!(share > 0)) throw new Error(`NUVET_RUNS is a number above 0, not “${process.env.NUVET_RUNS}”.`);

/** How often a law is tried in this run, where it is worth so many tries at length. */
export const lawRuns = (atLength: number): number => Math.max(Math.min(atLength, 6), Math.round(atLength * share));
