/** Edits of the job as a whole: its name, unit, stock, processes, scale and proof. */
import { z } from 'zod';
import { english, say } from '../../messages/index.ts';
import { type Machine, machineSchema } from '../machine.ts';
import { makingSchema, type ProcessEntry, processEntrySchema, processSettingsSchema, type Stock, stockSchema } from '../making.ts';
import { type ProofSettings, proofFields } from '../proof-settings.ts';
import { type Job, jobFields } from '../schema.ts';
import { sheetLayoutSchema } from '../sheet-layout.ts';
import { CommandError, command } from './command-kind.ts';

const proofWords: Partial<Record<keyof ProofSettings, string>> = {
  pinned: english.job.aSizeToProve,
  accepted: english.job.anIgnoredFinding,
  thinnestMm: english.job.theThinnestWeb,
  bridges: english.job.bridges,
  box: english.job.theBoxsSize,
  creaseAllowance: english.job.theCreaseAllowance,
};

const stockWords: Partial<Record<keyof Stock, string>> = {
  name: english.job.theStock,
  thicknessMm: english.job.theThickness,
  widthMm: english.job.theStocksSize,
  heightMm: english.job.theStocksSize,
};

/** What every machine of the job is told alike, as long as it is not told otherwise. */
export const withMachines = (job: Job, change: (machine: Machine) => Partial<Machine>): Job =>
  withProcesses(job, (entry) => {
    const own = change(entry.machine);
    return Object.keys(own).length === 0 ? entry : { ...entry, machine: { ...entry.machine, ...own } };
  });

const withProcesses = (job: Job, change: (entry: ProcessEntry) => ProcessEntry): Job => {
  const processes = job.making.processes.map(change);
  return processes.every((entry, k) => entry === job.making.processes[k]) ? job : { ...job, making: { ...job.making, processes } };
};

function entryOf(job: Job, id: string, process: string): ProcessEntry {
  const entry = job.making.processes.find((e) => e.id === id);
  if (entry?.process !== process) throw new CommandError('no-process', say.job.processGone());
  return entry;
}

const settingsFields = {
  id: processEntrySchema.shape.id,
  process: processEntrySchema.shape.process,
  change: processSettingsSchema,
};
type SettingsChange = Pick<ProcessEntry, 'id' | 'process'> & { readonly change: ProcessEntry['settings'] };

function withSettings(job: Job, { id, process, change }: SettingsChange): Job {
  const own = entryOf(job, id, process);
  return withProcesses(job, (entry) => (entry === own ? { ...entry, settings: { ...entry.settings, ...change } } : entry));
}

export const jobCommands = {
  rename: command({ name: jobFields.shape.name }, english.job.theName, (job, { name }) => ({ ...job, name })),
  'set-unit': command({ unit: jobFields.shape.unit }, english.job.theUnit, (job, { unit }) =>
    withMachines({ ...job, unit }, (machine) => (machine.unit === job.unit ? { unit } : {})),
  ),
  'set-stock': command(
    { change: stockSchema.partial() },
    ({ change }) => stockWords[Object.keys(change)[0] as keyof Stock] ?? english.job.theStock,
    (job, { change }) => ({ ...job, making: { ...job.making, stock: { ...job.making.stock, ...(change as Partial<Stock>) } } }),
  ),
  'add-process': command({ entry: processEntrySchema }, english.job.addingAProcess, (job, { entry }) => {
    const { processes } = job.making;
    if (processes.some(({ id }) => id === entry.id)) throw new CommandError('process-there', say.job.processThere());
    return { ...job, making: { ...job.making, processes: [...processes, entry] } };
  }),
  'remove-process': command({ id: processEntrySchema.shape.id }, english.job.removingAProcess, (job, { id }) => {
    const processes = job.making.processes.filter((entry) => entry.id !== id);
    if (processes.length === job.making.processes.length) throw new CommandError('no-process', say.job.processGone());
    return { ...job, making: { ...job.making, processes } };
  }),
  /** Settings of one process, those that are named; the process checks them. */
  'set-process': command(settingsFields, english.job.howItIsMade, withSettings),
  'set-machine': command({ id: processEntrySchema.shape.id, machine: machineSchema }, english.job.theMachine, (job, { id, machine }) => {
    if (!job.making.processes.some((entry) => entry.id === id)) throw new CommandError('no-process', say.job.processGone());
    return withProcesses(job, (entry) => (entry.id === id ? { ...entry, machine } : entry));
  }),
  /** A material of the shelf at once: the stock, and what is kept with it of the settings of each process. */
  'use-material': command(
    { stock: stockSchema, settings: z.array(z.strictObject(settingsFields)).max(12) },
    english.job.theStock,
    (job, { stock, settings }) => settings.reduce(withSettings, { ...job, making: { ...job.making, stock } }),
  ),
  /** A machine of the shelf at once, with what is kept there of the job's material. */
  'use-machine': command({ ...settingsFields, machine: machineSchema }, english.job.theMachine, (job, { machine, ...settings }) =>
    withProcesses(withSettings(job, settings), (entry) => (entry.id === settings.id ? { ...entry, machine } : entry)),
  ),
  'lay-out': command({ layout: sheetLayoutSchema.nullable() }, english.job.theLayout, (job, { layout }) => ({
    ...job,
    making: { ...job.making, layout },
  })),
  'name-files': command({ fileNames: makingSchema.shape.fileNames }, english.job.howFilesAreNamed, (job, { fileNames }) => ({
    ...job,
    making: { ...job.making, fileNames },
  })),
  'set-plan-scale': command({ planScale: jobFields.shape.planScale.unwrap() }, english.job.theDrawingScale, (job, { planScale }) => ({
    ...job,
    planScale,
  })),
  'prove-by': command(
    { change: proofFields.partial() },
    ({ change }) => proofWords[Object.keys(change)[0] as keyof ProofSettings] ?? english.job.theProof,
    (job, { change }) => ({ ...job, proof: { ...job.proof, ...(change as Partial<ProofSettings>) } }),
  ),
};
