/**
 * In: items of the shelf, and a job. Out: the edits by which the job takes a copy of one, what of the job goes back to the shelf, and
 * whether the shelf has a newer one than the job's copy.
 */
import type { Command } from '../job/commands/commands.ts';
import type { Machine } from '../job/machine.ts';
import type { ProcessEntry, Stock } from '../job/making.ts';
import type { Job } from '../job/schema.ts';
import type { ShelfCopy } from '../job/schema-parts.ts';
import { processesOf, settingsOf } from '../processes/job-processes.ts';
import { processKinds } from '../processes/registry.ts';
import type { ShelfMachine } from './machine.ts';
import { type Material, materialSchema } from './material.ts';
import type { ShelfItem } from './shelf-kinds.ts';

const copyOf = ({ id, revision }: ShelfItem): ShelfCopy => ({ id, revision });

/** A job's stock from a material: as thick as it was measured, else as it is sold; of its sheets the first. */
export function stockFrom(item: ShelfItem<'material'>): Stock {
  const { name, measuredMm, nominalMm, sheets } = item.value;
  const [sheet] = sheets;
  return {
    name,
    thicknessMm: measuredMm ?? nominalMm,
    widthMm: sheet?.widthMm ?? null,
    heightMm: sheet?.heightMm ?? null,
    shelf: copyOf(item),
  };
}

export function machineFrom(item: ShelfItem<'machine'>): Machine {
  const { process: _process, axes: _axes, note: _note, ...machine } = item.value;
  return { ...machine, shelf: copyOf(item) };
}

/** How a process cuts a material on a machine: as it was kept for that machine, else for another one of the same process, else nothing. */
function settingsIn({ onMachines }: Material, { process, machine }: ProcessEntry): ProcessEntry['settings'] {
  const own = onMachines.filter((one) => one.process === process);
  const found = own.find((one) => one.machine === machine.name) ?? own[0];
  if (!found) return {};
  const kind = processKinds[process];
  const hasKerf = kind !== undefined && 'kerfMm' in kind.plain && found.kerfMm !== null;
  return { ...found.settings, ...(hasKerf ? { kerfMm: found.kerfMm } : {}) };
}

/** The edit by which a job is made of a material: its size, and its settings in each of the job's processes. */
export const materialCommand = (item: ShelfItem<'material'>, { making }: Pick<Job, 'making'>): Command => ({
  do: 'use-material',
  stock: stockFrom(item),
  settings: processesOf({ making }).flatMap(({ entry }) => {
    const change = settingsIn(item.value, entry);
    return Object.keys(change).length > 0 ? [{ id: entry.id, process: entry.process, change }] : [];
  }),
});

/** The edit by which a process of a job is done on a machine, with what the shelf keeps for it of the job's material. */
export function machineCommand(
  item: ShelfItem<'machine'>,
  entry: ProcessEntry,
  { making }: Pick<Job, 'making'>,
  shelf: readonly ShelfItem[],
): Command {
  const machine = machineFrom(item);
  const material = shelf.find(({ id, kind }) => kind === 'material' && id === making.stock.shelf?.id) as ShelfItem<'material'> | undefined;
  const change = material ? settingsIn(material.value, { ...entry, machine }) : {};
  return { do: 'use-machine', id: entry.id, process: entry.process, machine, change };
}

/** The job's stock as a material: what is on the shelf under its name, with the job's thickness, sheet, kerf and settings. */
export function materialFrom(job: Job, name: string, before: Material | null): Material {
  const { thicknessMm, widthMm, heightMm } = job.making.stock;
  const kept = before ?? materialSchema.parse({ name });
  const isThere = kept.sheets.some((sheet) => sheet.widthMm === widthMm && sheet.heightMm === heightMm);
  const found = processesOf(job).flatMap((one): Material['onMachines'] => {
    const { entry, kind } = one;
    if (kind.ofMaterial.length === 0) return [];
    const own = settingsOf<Record<string, unknown>>(one);
    const { kerfMm = null, ...settings } = Object.fromEntries(kind.ofMaterial.map((key) => [key, own[key]])) as Record<string, never>;
    return [{ machine: entry.machine.name, process: entry.process, kerfMm, settings }];
  });
  const isSame = (a: Material['onMachines'][number], b: typeof a): boolean => a.machine === b.machine && a.process === b.process;
  return {
    ...kept,
    name,
    measuredMm: thicknessMm ?? kept.measuredMm,
    sheets: widthMm && heightMm && !isThere ? [{ widthMm, heightMm, count: 1 }, ...kept.sheets] : kept.sheets,
    onMachines: [...found, ...kept.onMachines.filter((one) => !found.some((f) => isSame(f, one)))].slice(0, 30),
  };
}

/** A machine as a job has it, for the shelf; what a job does not know of it stays. */
export function shelfMachineFrom({ process, machine: { shelf: _, ...machine } }: ProcessEntry, before: ShelfMachine | null): ShelfMachine {
  return { axes: before?.axes ?? 'xy', note: before?.note ?? '', ...machine, process };
}

/** What a job keeps a copy of, where the shelf has another one by now; a machine with the process that is done on it. */
export type Newer =
  | { readonly item: ShelfItem<'material'>; readonly entry: null }
  | { readonly item: ShelfItem<'machine'>; readonly entry: ProcessEntry };

/** All copies of a job that the shelf has changed since. */
export function newerOnShelf({ making }: Pick<Job, 'making'>, items: readonly ShelfItem[]): Newer[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const newer = (copy: ShelfCopy | null): ShelfItem | undefined => {
    const item = copy ? byId.get(copy.id) : undefined;
    return item && item.revision !== copy?.revision ? item : undefined;
  };
  const material = newer(making.stock.shelf);
  const machines = making.processes.flatMap((entry): Newer[] => {
    const item = newer(entry.machine.shelf);
    return item?.kind === 'machine' ? [{ item: item as ShelfItem<'machine'>, entry }] : [];
  });
  return [...(material?.kind === 'material' ? [{ item: material as ShelfItem<'material'>, entry: null }] : []), ...machines];
}

/** The edit by which a job takes over what the shelf has by now. */
export const takeOverCommand = ({ item, entry }: Newer, job: Pick<Job, 'making'>, shelf: readonly ShelfItem[]): Command =>
  entry === null ? materialCommand(item, job) : machineCommand(item, entry, job, shelf);

/** The edit by which a job keeps its own, and is told no more. */
export function keepOwnCommand({ item, entry }: Newer): Command {
  const shelf = copyOf(item);
  return entry === null
    ? { do: 'set-stock', change: { shelf } }
    : { do: 'set-machine', id: entry.id, machine: { ...entry.machine, shelf } };
}
