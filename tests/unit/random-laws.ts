// What random laws start from. A check of the project gives the same answer twice for the same code, so the seed stands
// here; `NUVET_SEED=any npx vitest run` looks further afield, with any other number as its seed.
import { configureGlobal, readConfigureGlobal } from 'fast-check';

const asked = process.env.NUVET_SEED;
const seed = asked === undefined ? 20261127 : asked === 'any' ? Math.floor(Math.random() * 0x7fffffff) : Number(asked);
if (!Number.isInteger(seed)) throw new Error(`NUVET_SEED is a whole number or “any”, not “${asked}”.`);
configureGlobal({ ...readConfigureGlobal(), seed });
