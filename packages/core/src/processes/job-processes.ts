/**
 * In: a job and the registry of processes. Out: each process of the job with its settings in full, what it asks of outlines, and jobs
 * and edits checked by the processes that they name.
 */
import type { z } from 'zod';
import { type Command, commandSchema } from '../job/commands/commands.ts';
import { type Machine, plainMachine } from '../job/machine.ts';
import type { ProcessEntry } from '../job/making.ts';
import { piecesToProve } from '../job/pieces-to-make.ts';
import { type Job, jobSchema } from '../job/schema.ts';
import { photographedPieces } from '../job/seen-from.ts';
import { type Fault, faultKey, type ProofLimits } from '../proof/fault.ts';
import { faultsOf } from '../proof/faults.ts';
import type { AnyProcess, Work } from './process.ts';
import { processKinds } from './registry.ts';

/** A process of a job that the registry knows. */
export interface JobProcess {
  readonly entry: ProcessEntry;
  readonly kind: AnyProcess;
}

/** Those of a job that are known here; a job made elsewhere may name others, which it keeps. */
export const processesOf = ({ making }: Pick<Job, 'making'>): JobProcess[] =>
  making.processes.flatMap((entry) => {
    const kind = Object.hasOwn(processKinds, entry.process) ? processKinds[entry.process] : undefined;
    return kind ? [{ entry, kind }] : [];
  });

const filled = new WeakMap<object, object>();

/** The settings of a process, those that were never typed as they are until then; the same settings give the same object. */
export function settingsOf<Settings extends object>({ entry, kind }: JobProcess): Settings {
  let full = filled.get(entry.settings);
  if (!full) {
    const kept = { ...kind.plain, ...entry.settings };
    full = (kind.whole?.(kept) ?? kept) as object;
    filled.set(entry.settings, full);
  }
  return full as Settings;
}

/** A process as it is added to a job. */
export function newEntry(id: string, process: string, job: Pick<Job, 'unit' | 'pictures'>): ProcessEntry {
  const hasDatum = job.pictures.some(({ datum }) => datum !== null);
  const machine: Machine = { ...plainMachine, unit: job.unit, origin: hasDatum ? 'sheet' : plainMachine.origin };
  return { id, process, machine, settings: {} };
}

export const workOf = (
  one: JobProcess,
  job: Pick<Job, 'name' | 'making' | 'pictures' | 'traces' | 'planScale'>,
  pieces: Work<object>['pieces'],
): Work<object> => ({
  title: job.name,
  pieces,
  settings: settingsOf(one),
  machine: one.entry.machine,
  stock: job.making.stock,
  ...(one.kind.takesPhotographs && { photographs: photographedPieces(job) }),
});

/** The limits of each process, those that are alike once, each with the processes that it holds for. */
export interface SharedLimits {
  readonly limits: ProofLimits;
  readonly processIds: readonly string[];
  /** Codes of findings that mean nothing to them. */
  readonly ignores: readonly string[];
}

/** What a job's outlines are checked against. */
export function limitsOf({ proof, making }: Pick<Job, 'proof' | 'making'>): SharedLimits[] {
  const shared = new Map<string, SharedLimits>();
  for (const one of processesOf({ making })) {
    const { kerfMm, thinnestMm } = one.kind.limits(settingsOf(one));
    const limits = { kerfMm, thinnestMm: Math.max(thinnestMm, proof.thinnestMm), clearanceMm: proof.clearanceMm };
    const { ignores = [] } = one.kind;
    const key = `${limits.kerfMm} ${limits.thinnestMm} ${ignores.join(' ')}`;
    shared.set(key, { limits, ignores, processIds: [...(shared.get(key)?.processIds ?? []), one.entry.id] });
  }
  if (shared.size > 0) return [...shared.values()];
  return [{ limits: { kerfMm: 0, thinnestMm: proof.thinnestMm, clearanceMm: proof.clearanceMm }, ignores: [], processIds: [] }];
}

/** Faults as they were found under limits that some processes share. */
type FoundUnder = Pick<SharedLimits, 'processIds' | 'ignores'> & { readonly faults: readonly Fault[] };

/** Faults found under each of the limits, as one list: those that some processes alone have name them. */
export function faultsTogether(all: readonly FoundUnder[]): Fault[] {
  const found = all.map(({ faults, ignores, processIds }) => ({
    faults: faults.filter(({ code }) => !ignores.includes(code)),
    processIds,
  }));
  const [first, ...rest] = found;
  if (!first) return [];
  if (rest.length === 0) return [...first.faults];
  const known = new Map<string, { fault: Fault; under: Set<number> }>();
  for (const [k, { faults }] of found.entries())
    for (const fault of faults) {
      const same = known.get(faultKey(fault));
      if (same) same.under.add(k);
      else known.set(faultKey(fault), { fault, under: new Set([k]) });
    }
  return [...known.values()].map(({ fault, under }) =>
    under.size === found.length ? fault : { ...fault, processIds: [...under].flatMap((k) => found[k]?.processIds ?? []) },
  );
}

/** All faults of a job's outlines, at once. */
export function faultsOfJob(job: Job): Fault[] {
  const pieces = piecesToProve(job);
  return faultsTogether(limitsOf(job).map(({ limits, ...shared }) => ({ ...shared, faults: faultsOf(pieces, limits) })));
}

const settingsFault = 'settings that this process does not have';

/** A job or its document, its processes' settings checked, too; those of processes that are not known here are let be. */
export const checkedJobSchema = jobSchema.transform((job, context): Job => {
  for (const { entry, kind } of processesOf(job)) {
    const parsed = kind.settings.partial().safeParse(entry.settings);
    if (!parsed.success) context.addIssue({ code: 'custom', path: ['making', 'processes', entry.id], message: settingsFault });
  }
  return job;
});

/** An edit, checked before it is done by page and server alike. */
export const checkedCommandSchema: z.ZodType<Command> = commandSchema.superRefine((command, context) => {
  for (const { process, change } of settingsSaid(command)) {
    const kind = Object.hasOwn(processKinds, process) ? processKinds[process] : undefined;
    if (!kind) context.addIssue({ code: 'custom', path: ['process'], message: 'no such process' });
    else if (!kind.settings.partial().safeParse(change).success)
      context.addIssue({ code: 'custom', path: ['change'], message: settingsFault });
  }
}) as unknown as z.ZodType<Command>;

/** The settings that an edit gives to processes. */
function settingsSaid(command: Command): { readonly process: string; readonly change: ProcessEntry['settings'] }[] {
  switch (command.do) {
    case 'add-process':
      return [{ process: command.entry.process, change: command.entry.settings }];
    case 'set-process':
    case 'use-machine':
      return [command];
    case 'use-material':
      return command.settings;
    default:
      return [];
  }
}
