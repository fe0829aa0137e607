/**
 * In: a job and its edits. Out: the job after doing, undoing and redoing them. An edit is kept as patches both ways,
 * so that a long history costs only what changed.
 * Rests on: immer's patches.
 */
import { applyPatches, enablePatches, type Patch } from 'immer';
import { labelOf } from './command-words.ts';
import { applyCommand, type Command } from './commands.ts';
import type { Job } from './schema.ts';

enablePatches();

/** One edit, to be done again or undone. */
export interface Edit {
  readonly label: string;
  readonly forward: Patch[];
  readonly back: Patch[];
}

/** Does a command; null where it changes nothing. */
export function edited(job: Job, command: Command): { job: Job; edit: Edit } | null {
  const next = applyCommand(job, command);
  const [forward, back] = [differences(job, next), differences(next, job)];
  return forward.length === 0 ? null : { job: next, edit: { label: labelOf(command), forward, back } };
}

export const undone = (job: Job, edit: Edit): Job => applyPatches(job, edit.back);
export const redone = (job: Job, edit: Edit): Job => applyPatches(job, edit.forward);

/** Patches from one job to another: whole values where they differ, looking into objects two levels deep. */
function differences(from: object, to: object, path: string[] = []): Patch[] {
  return Object.keys(to).flatMap((key): Patch[] => {
    const [a, b] = [(from as Record<string, unknown>)[key], (to as Record<string, unknown>)[key]];
    if (a === b) return [];
    if (path.length < 2 && isPlain(a) && isPlain(b)) return differences(a, b, [...path, key]);
    return isSame(a, b) ? [] : [{ op: 'replace', path: [...path, key], value: b }];
  });
}

const isPlain = (value: unknown): value is object => typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether two plain values are equal all through; shared parts are not looked into. */
function isSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const keys = Object.keys(a);
  if (Array.isArray(a) !== Array.isArray(b) || keys.length !== Object.keys(b).length) return false;
  return keys.every((key) => key in b && isSame((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]));
}
