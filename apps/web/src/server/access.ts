/**
 * The one place that decides who may do what. Every page, route and action passes it; for now it knows one local
 * person of one workshop, and that person may do everything in it. Accounts will change only this file.
 */

import { words } from '../words/index.ts';
import { HttpError } from './http-error.ts';

export interface Person {
  readonly name: string;
  readonly workshopId: string;
}

const permissions = [
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
  'read-shelf',
  'edit-shelf',
  'run-cutter',
] as const;
export type Permission = (typeof permissions)[number];

const localPerson: Person = { name: 'the workshop', workshopId: '00000000-0000-4000-8000-000000000001' };
const granted: ReadonlySet<Permission> = new Set(permissions);

/** Who asks, if they may do this at all. @throws Problem 403 */
export async function requirePermission(permission: Permission): Promise<Person> {
  if (!granted.has(permission)) throw new HttpError(403, 'not-allowed', words.server.youMayNotDoThis);
  return localPerson;
}

/** Lets through what belongs to the person's workshop; what does not is as if it were not there. @throws Problem 404 */
export function owned<T extends { workshopId: string }>(person: Person, thing: T | null, word: string): T {
  if (!thing || thing.workshopId !== person.workshopId) throw new HttpError(404, 'not-there', words.server.thisIsNotThereItMay(word));
  return thing;
}
