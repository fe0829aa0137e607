/**
 * In: a request. Out: the files that it asks for, each read back before it is written, and a line a file.
 */
import { readFile, stat } from 'node:fs/promises';
import { type Job, type Piece, piecesOnSheet, piecesToMake, plainLayout, type SheetLayout, sheetParts } from '@nuvet/core/job';
import { SaidError } from '@nuvet/core/messages';
import { layoutOfPieces } from '@nuvet/core/nesting';
import { type JobProcess, newEntry, type ProcessFileMade, processKinds, workOf } from '@nuvet/core/processes';
import { finished } from '@nuvet/core/steps';
import { UsageError } from './arguments.ts';
import { done, type Io, type Outcome } from './io.ts';
import { withKerf } from './job-file.ts';
import { type MakeRequest, settingSaid } from './making-arguments.ts';
import { jobFileIn } from './prove.ts';
import { makeReport, makeSummary, reportText } from './report-schemas.ts';
import { writeWholeFiles } from './whole-files.ts';

/** The job's own process of that name, or a new one; with what was said of its settings. */
function processFor({ process, stock }: MakeRequest, settings: Record<string, unknown>, job: Job): JobProcess {
  const own = job.making.processes.find((entry) => entry.process === process) ?? newEntry('new', process, job);
  const said = { ...own, settings: { ...own.settings, ...(settings as typeof own.settings) } };
  return { entry: stock.kerfMm === null ? said : withKerf(said, stock.kerfMm), kind: processKinds[process] as JobProcess['kind'] };
}

const fileOf = ({ files }: JobProcess['kind'], name: string) => files[name] as NonNullable<(typeof files)[string]>;

export async function make(request: MakeRequest, io: Io): Promise<Outcome> {
  const { file, stock, limitS, dpi } = request;
  const { job, findings, notes, hasLost } = await jobFileIn(io, { file, stock, thinnestMm: null, strokes: request.strokes }, limitS);
  const ignored: readonly string[] = processKinds[request.process]?.ignores ?? [];
  const looks = findings.filter(({ code }) => !ignored.includes(code));
  const stop = looks.find((f) => f.weight === 'stops');
  if (stop && !request.anyway) throw new UsageError(`${request.file}: ${stop.message} Mend it, or say --anyway`);
  const process = processFor(request, await settingsOf(request), job);
  const { kind } = process;
  const files = new Map<string, Uint8Array>();
  const made: MadeFile[] = [];
  const reports: Record<string, unknown>[] = [];
  const said: string[] = [];
  const planNotes: { readonly message: string }[] = [];
  try {
    await kind.ready?.();
    const sheets = sheetsOf(request, job, said);
    for (const [k, pieces] of sheets.entries()) {
      const work = workOf(process, job, pieces);
      const plan = finished(kind.plan(work));
      planNotes.push(...kind.notes(plan));
      for (const { path, file: name } of request.out) {
        const { further = [], report, ...first } = await fileOf(kind, name).make(work, plan, { dpi, underlay: null });
        if (report) reports.push(report);
        for (const { bytes, toleranceMm: _, part, ...about } of [first, ...further]) {
          const parts = [sheets.length > 1 ? `sheet-${k + 1}` : null, part ?? null].filter((one) => one !== null);
          const place = parts.length === 0 ? path : withPart(path, parts.join('-'));
          files.set(place, bytes);
          made.push({ file: place, ...about });
        }
      }
    }
    if (request.report)
      files.set(
        request.report,
        reportOf(request, job, process, made, looks, [...planNotes, ...notes.map((message) => ({ message }))], reports),
      );
    await writeWholeFiles(files, { force: request.force, inputs: [file, ...request.settingsFiles.map(({ path }) => path)] });
    const told = toldOf(request, job, process, made, [...looks, ...planNotes].map(({ message }) => message), [...notes, ...said]); // biome-ignore format: one line
    return { ...told, code: lostCode(hasLost, request) };
  } catch (error) {
    if (error instanceof SaidError) throw new UsageError(`${file}: ${error.message}`);
    throw error;
  }
}

/** What a drawing's reader left aside counts, unless it was said not to. */
const lostCode = (hasLost: boolean, { anyway }: MakeRequest): Outcome['code'] => (hasLost && !anyway ? 1 : 0);

/** The pieces of each sheet; all at once where they are made as drawn. @param told what is said of the layout */
function sheetsOf({ nest, stock }: MakeRequest, job: Job, told: string[]): readonly (readonly Piece[])[] {
  const pieces = piecesToMake(job);
  if (!nest) return [pieces];
  const { widthMm, heightMm } = stock.sheet ?? job.making.stock;
  if (widthMm === null || heightMm === null) throw new UsageError('say how large a sheet is: --stock "600x400mm"');
  const { copies, ...how } = nest;
  const each = Object.fromEntries(sheetParts(pieces).map(({ piece }) => [piece.id, copies]));
  const layout: SheetLayout = { ...plainLayout, ...how, sheets: [{ widthMm, heightMm, count: 400 }], copies: each };
  const { laid, utilisation, tooLarge, left } = finished(layoutOfPieces(pieces, layout, 1));
  const missing = [...tooLarge, ...left.map(({ name }) => name)];
  if (missing.length > 0) throw new UsageError(`${missing.join(', ')}: larger than the sheet, or too many`);
  told.push(`${laid.sheets.length === 1 ? '1 sheet' : `${laid.sheets.length} sheets`}, ${(100 * utilisation).toFixed(0)} % used`);
  return laid.sheets.map((_, k) => piecesOnSheet(pieces, { ...layout, laid }, k));
}

/** A file as it was made, for the report. */
type MadeFile = { readonly file: string } & Omit<ProcessFileMade, 'bytes' | 'toleranceMm' | 'part' | 'further' | 'report'>;

const largestSettings = 1_000_000;

/** The settings that were said, with those that files say. */
async function settingsOf({ process, settings, settingsFiles }: MakeRequest): Promise<Record<string, unknown>> {
  const said = { ...settings };
  for (const { word, path } of settingsFiles) {
    const size = await stat(path).then((found) => found.size).catch(() => -1); // biome-ignore format: one line
    if (size < 0) throw new UsageError(`--${word} ${path}: cannot be read`);
    if (size > largestSettings) throw new UsageError(`--${word} ${path}: is too large`);
    const text = await readFile(path, 'utf8');
    Object.assign(said, settingSaid(processKinds[process]?.options ?? {}, word, text, path));
  }
  return said;
}

/** A file's name with what stands after it: `badge.gcode` becomes `badge-1-v-bit.gcode`. */
const withPart = (path: string, part: string): string => path.replace(/(\.[^./\\]+)?$/, `-${part}$1`);

function reportOf(
  { file }: MakeRequest,
  job: Job,
  { entry }: JobProcess,
  made: readonly MadeFile[],
  findings: readonly { readonly message: string }[],
  notes: readonly { readonly message: string }[],
  reports: readonly Record<string, unknown>[],
): Uint8Array {
  const report = {
    job: job.name,
    from: file,
    process: entry.process,
    files: made,
    findings: findings.map(({ message }) => message),
    notes: notes.map(({ message }) => message),
    ...Object.assign({}, ...reports),
  };
  return new TextEncoder().encode(reportText(makeReport, report));
}

function toldOf(
  { json, process }: MakeRequest,
  job: Job,
  { entry, kind }: JobProcess,
  made: readonly MadeFile[],
  looks: readonly string[],
  notes: readonly string[],
): Outcome {
  const { kerfMm } = kind.limits({ ...kind.plain, ...entry.settings });
  const { thicknessMm } = job.making.stock;
  if (json) return done([reportText(makeSummary, { job: job.name, process, files: made, kerfMm, thicknessMm, looks, notes }).trimEnd()]);
  const hasKerf = 'kerfMm' in kind.plain;
  return done([
    ...made.map(({ file, largestMm, widthMm, heightMm, pages }) =>
      largestMm !== null
        ? `${file}: ${largestMm.toFixed(3)} mm off at most, ${widthMm.toFixed(2)} x ${heightMm.toFixed(2)} mm`
        : pages === undefined
          ? widthMm === 0
            ? file
            : `${file}: ${widthMm.toFixed(2)} x ${heightMm.toFixed(2)} mm`
          : `${file}: ${pages} ${pages === 1 ? 'page' : 'pages'} and a map; print at 100 %`,
    ),
    hasKerf ? `kerf: ${kerfMm} mm${kerfMm === 0 ? ', so that nothing is compensated' : ''}` : 'kerf: none, nothing is taken away',
    ...looks.map((message) => `look: ${message}`),
    ...notes.map((note) => `note: ${note}`),
  ]);
}
