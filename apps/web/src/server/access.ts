/**
 * The one place that decides who may do what. Every page, route and action passes it; for now it knows one local
 * person of one workshop, and that person may do everything in it. Accounts will change only this file.
 */

import { words } from '../words/index.ts';
import { Problem } from './problem.ts';

export interface Person {
  readonly name: string;
  readonly workshopId: string;
}

const deeds = [
  'check-health',
  'list-jobs',
  'make-job',
  'read-job',
  'edit-job',
  'delete-job',
  'add-picture',
  'read-picture',
  'list-motifs',
  'keep-motif',
  'delete-motif',
  'list-presets',
  'keep-preset',
  'run-cutter',
] as const;
export type Deed = (typeof deeds)[number];

const localPerson: Person = { name: 'the workshop', workshopId: '00000000-0000-4000-8000-000000000001' };
const mayDo: ReadonlySet<Deed> = new Set(deeds);

/** Who asks, if they may do this at all. @throws Problem 403 */
export async function personWhoMay(deed: Deed): Promise<Person> {
  if (!mayDo.has(deed)) throw new Problem(403, 'not-allowed', words.server.youMayNotDoThis);
  return localPerson;
}

/** Lets through what belongs to the person's workshop; what does not is as if it were not there. @throws Problem 404 */
export function owned<T extends { workshopId: string }>(person: Person, thing: T | null, word: string): T {
  if (!thing || thing.workshopId !== person.workshopId) throw new Problem(404, 'not-there', words.server.thisIsNotThereItMay(word));
  return thing;
}
