/**
 * In: a job and its edits. Out: the job after doing, undoing and redoing them. An edit is kept as patches of the document both
 * ways, so that a long history costs only what changed.
 * Rests on: immer's patches.
 */
import { applyPatches, type Draft, enablePatches, type Patch, produceWithPatches, setAutoFreeze } from 'immer';
import { applyCommand, type Command, labelOf } from './commands/commands.ts';
import { documentOf, type JobDocument, jobOfDocument } from './document.ts';
import { migrated } from './migrations.ts';
import { type Job, jobFields } from './schema.ts';
import { asThird, isOfThird } from './third-version.ts';

enablePatches();
// What is kept by identity stands on both sides of an edit; freezing all of a large job would cost more than the edit.
setAutoFreeze(false);

/** One edit, to be done again or undone. */
export interface Edit {
  readonly label: string;
  readonly forward: Patch[];
  readonly back: Patch[];
}

/** Does a command; null where it changes nothing. */
export function edited(job: Job, command: Command): { job: Job; edit: Edit } | null {
  const next = applyCommand(job, command);
  if (next === job) return null;
  const before = documentOf(job);
  const after = documentOf(next);
  const [, forward, back] = produceWithPatches(before, (draft: Draft<JobDocument>) => assign(draft, before, after));
  // The job as the command made it: what it took over, such as pieces just traced, stays the very same.
  return forward.length === 0 ? null : { job: next, edit: { label: labelOf(command), forward, back } };
}

export const undone = (job: Job, edit: Pick<Edit, 'back'>): Job => patched(job, edit.back);
export const redone = (job: Job, edit: Pick<Edit, 'forward'>): Job => patched(job, edit.forward);

/** The job after patches; those of earlier versions are taken to the document as it was then. */
export function patched(job: Job, patches: readonly Patch[]): Job {
  if (patches.some(isOfSecond)) return patchedAsSecond(job, patches);
  if (patches.some(isOfThird)) return jobFields.parse(migrated(applyPatches(asThird(documentOf(job)), patches as Patch[])));
  return jobOfDocument(applyPatches(documentOf(job), patches as Patch[]));
}

type Plain = Record<string, unknown>;
const isObject = (value: unknown): value is Plain => typeof value === 'object' && value !== null;
const isPlain = (value: unknown): value is Plain => isObject(value) && !Array.isArray(value);

/** Makes a draft of `before` equal to `after`, touching only what differs. */
function assign(draft: unknown, before: unknown, after: unknown): void {
  const [into, from, to] = [draft as Plain, before as Plain, after as Plain];
  for (const key of Object.keys(from)) if (!(key in to)) delete into[key];
  for (const key of Object.keys(to)) {
    const [a, b] = [from[key], to[key]];
    if (Object.is(a, b)) continue;
    const isAlike = (isPlain(a) && isPlain(b)) || (Array.isArray(a) && Array.isArray(b) && a.length === b.length);
    if (isAlike) {
      if (isWorthwhile(a as Plain, b as Plain)) assign(into[key], a, b);
      else into[key] = b;
    } else into[key] = b;
  }
}

/** Of lists in which nearly all differs, such as an order, the whole is shorter than its differences. */
function isWorthwhile(a: Plain, b: Plain): boolean {
  if (!Array.isArray(a) || !Array.isArray(b)) return true;
  let differing = 0;
  for (let k = 0; k < a.length; k++) if (!isSame(a[k], b[k])) differing++;
  return differing <= 1 + a.length / 4;
}

/** Whether two plain values are equal all through; shared parts are not looked into. */
function isSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (!isObject(a) || !isObject(b) || Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && isSame(a[key], b[key]));
}

const listed = ['drawn', 'drawings'];

/** Patches of versions 1 and 2 replace `trace`, parts of it, or whole lists. */
const isOfSecond = ({ path, value }: Patch): boolean =>
  path[0] === 'trace' || (path.length === 1 && listed.includes(String(path[0])) && Array.isArray(value));

/** The job as a document of version 2, patched, and brought up again. */
function patchedAsSecond(job: Job, patches: readonly Patch[]): Job {
  const { traces, ...rest } = asThird(job) as { traces: Job['traces'] };
  const old = applyPatches({ ...rest, version: 2, trace: traces.at(-1) ?? null }, patches as Patch[]);
  return jobFields.parse(migrated(old));
}
