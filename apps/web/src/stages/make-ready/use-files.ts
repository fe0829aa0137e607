'use client';
/**
 * The files of the open process: made in the worker, read back, and handed over one by one, as the set of its machine, or with the
 * sets of all processes.
 */
import { fileName } from '@nuvet/core/files';
import { isLaid, type Job, type Piece, piecesOnSheet } from '@nuvet/core/job';
import { type JobProcess, type ProcessFileMade, settingsOf, workOf } from '@nuvet/core/processes';
import type { Remote } from 'comlink';
import { useEffect, useState } from 'react';
import { useJob } from '@/job/job-store';
import { greySources } from '@/processes/grey-sources';
import { useProcesses } from '@/processes/open-process';
import type { OpenProcess } from '@/processes/process-view';
import { processViews } from '@/processes/registry';
import { sheetsIn } from '@/processes/sheets/use-layout';
import { underlayFor } from '@/processes/underlay';
import { setMaking, useMaking } from '@/table/making-store';
import { downloadFile } from '@/ui/download';
import { toldError } from '@/words/told';
import { maker } from '@/workers/maker.client';
import type { Maker } from '@/workers/maker.worker';
import { rememberFile, useLastFile } from './last-file';

export type FileSeen = ProcessFileMade | { readonly fault: string } | 'working';

/** The day as people sort by it, in their own time. */
export const today = (): string => new Intl.DateTimeFormat('sv-SE').format(new Date());

/** A file's name by the job's pattern. */
export const nameFor = (job: Job, one: JobProcess | null, what: string, revision: number, ending: string): string =>
  fileName(
    job.making.fileNames,
    {
      job: job.name,
      what,
      process: one?.kind.word.toLowerCase() ?? '',
      machine: one?.entry.machine.name ?? '',
      date: today(),
      revision,
    },
    ending,
  );

/** The files that there are by its settings. */
export const filesOf = (one: JobProcess): string[] =>
  Object.entries(one.kind.files).flatMap(([name, { isOffered }]) => (!isOffered || isOffered(settingsOf(one)) ? [name] : []));

/** The files that a machine gets: those that were chosen for it; before any were, all of its process. */
export const setOf = (one: JobProcess): string[] => {
  const { entry } = one;
  const names = filesOf(one);
  const chosen = names.filter((name) => entry.machine.files.includes(name));
  return chosen.length > 0 ? chosen : names;
};

/** A file by its name; those that come together each with its part after the name. */
const partsOf = ({ further = [], ...first }: ProcessFileMade, name: string): { name: string; bytes: Uint8Array }[] =>
  [first, ...further].map(({ bytes, part }) => ({ name: part === undefined ? name : name.replace(/(\.[^.]+)$/, `-${part}$1`), bytes }));

/** A file of every sheet as files that come together. */
function together(sheets: readonly ProcessFileMade[]): ProcessFileMade {
  const files = sheets.flatMap(
    ({ further = [], ...first }, k) =>
    [first, ...further].map(({ part, ...file }): ProcessFileMade => ({ ...file, part: `sheet-${k + 1}${part === undefined ? '' : `-${part}`}` })), // biome-ignore format: one line
  );
  const [first, ...further] = files as [ProcessFileMade, ...ProcessFileMade[]];
  const off = files.flatMap(({ largestMm }) => largestMm ?? []);
  return { ...first, largestMm: off.length > 0 ? Math.max(...off) : null, further };
}

/** @param pieces those of the sheet in hand; @param drawn all of them, which may lie on several sheets */
export function useFiles(open: OpenProcess | null, pieces: readonly Piece[], drawn: readonly Piece[], isStopped: boolean) {
  const job = useJob((s) => s.job);
  const revision = useJob((s) => s.revision);
  const processes = useProcesses();
  const [dpi, setDpi] = useState(600);
  const [seen, setSeen] = useState<Readonly<Record<string, FileSeen>>>({});
  const [fault, setFault] = useState<string | null>(null);
  const entry = open?.entry ?? null;
  // What was made of other outlines, or for another machine, says nothing of these.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a change of any of these is what matters
  useEffect(() => setSeen({}), [pieces, entry, open?.plan]);
  const isReady = !isStopped && pieces.length > 0 && open?.plan != null;
  const last = useLastFile(entry);
  const choicesFor = (one: JobProcess) => {
    const shows = processViews[one.entry.process]?.showsPicture?.({ ...one.kind.plain, ...one.entry.settings });
    return { dpi, source: shows ? underlayFor(job) : null };
  };
  /** The pieces of each sheet that a process cuts; all at once where it makes them as drawn. */
  const sheetsFor = ({ kind }: JobProcess): readonly (readonly Piece[])[] => {
    const { layout } = job.making;
    if (!kind.cutsSheets || !isLaid(drawn, layout)) return [drawn];
    return Array.from({ length: sheetsIn(layout) }, (_, sheet) => piecesOnSheet(drawn, layout, sheet));
  };
  /** Files of a process, planned for them alone: those of several sheets together. */
  const filesFor = async (one: JobProcess, names: readonly string[]): Promise<(ProcessFileMade | { readonly refused: string })[]> => {
    const bySheet: Awaited<ReturnType<Remote<Maker>['files']>>[] = [];
    for (const on of sheetsFor(one))
      bySheet.push(
        await maker().files(
          one.entry.process,
          names,
          { ...workOf(one, job, on), greySources: greySources(one.kind, settingsOf(one), job) },
          choicesFor(one),
        ),
      );
    return names.map((_, n) => {
      const files = bySheet.map((all) => all[n] as (typeof all)[0]);
      const refused = files.find((file) => 'refused' in file);
      if (refused) return refused;
      return files.length === 1 ? (files[0] as ProcessFileMade) : together(files as ProcessFileMade[]);
    });
  };
  const made = async (name: string): Promise<ProcessFileMade | null> => {
    if (!open || open.plan === null) return null;
    setSeen((s) => ({ ...s, [name]: 'working' }));
    try {
      const isOfSeveral = sheetsFor(open).length > 1;
      const file = isOfSeveral ? (await filesFor(open, [name]))[0] : await maker().file(open.entry.process, name, workOf(open, job, pieces), open.plan, choicesFor(open)); // biome-ignore format: one line
      if (!file) return null;
      if ('refused' in file) throw new Error(file.refused);
      setSeen((s) => ({ ...s, [name]: file }));
      return file;
    } catch (error) {
      setSeen((s) => ({ ...s, [name]: { fault: toldError(error) } }));
      return null;
    }
  };
  const nameOf = (one: JobProcess, name: string): string => {
    const file = one.kind.files[name];
    return nameFor(job, one, file?.what ?? name, revision(), file?.ending ?? name);
  };
  const download = async (name: string) => {
    const file = await made(name);
    if (!file || !open) return;
    const parts = partsOf(file, nameOf(open, name));
    if (parts.length > 1) await zip(parts, open.kind.files[name]?.what ?? name);
    else downloadFile(file.bytes, nameOf(open, name), open.kind.files[name]?.mediaType ?? '');
    rememberFile(open.entry, name);
  };
  const zip = async (files: readonly { name: string; bytes: Uint8Array }[], what: string) => {
    if (files.length === 0) return;
    downloadFile(await maker().zipped(files), nameFor(job, null, what, revision(), 'zip'), 'application/zip');
  };
  const downloadSet = async () => {
    if (!open) return;
    const files: { name: string; bytes: Uint8Array }[] = [];
    for (const name of setOf(open)) {
      const file = await made(name);
      if (file) files.push(...partsOf(file, nameOf(open, name)));
    }
    await zip(files, 'files');
  };
  /** Each process in a folder of its own. */
  const downloadAllSets = async () => {
    setFault(null);
    try {
      const files: { name: string; bytes: Uint8Array }[] = [];
      for (const [k, one] of processes.entries()) {
        const names = setOf(one);
        const all = await filesFor(one, names);
        const folder = `${k + 1} ${one.kind.word}, ${one.entry.machine.name}`.replace(/[^\p{L}\p{N} ,._-]+/gu, ' ');
        all.forEach((file, n) => {
          if ('refused' in file) setFault(toldError(new Error(file.refused)));
          else files.push(...partsOf(file, `${folder}/${nameOf(one, names[n] as string)}`));
        });
      }
      await zip(files, 'files');
    } catch (error) {
      setFault(toldError(error));
    }
  };
  // What was asked for from elsewhere is downloaded as soon as it can be made.
  const wanted = useMaking((s) => s.wanted);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each request
  useEffect(() => {
    if (!wanted || !isReady) return;
    setMaking({ wanted: null });
    void download(wanted);
  }, [wanted, isReady]);
  return { seen, fault, isReady, dpi, setDpi, download, downloadSet, downloadAllSets, nameOf, last, hasSeveral: processes.length > 1 };
}

export type Files = ReturnType<typeof useFiles>;
