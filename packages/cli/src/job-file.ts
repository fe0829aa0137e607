/**
 * In: a job's document, an SVG or a DXF file. Out: the job and what in the file was left aside; outlines of a drawing file become a
 * job with nothing else in it. What is wrong with a file is said in one line; nothing of it is read without a bound.
 */
import { readFile, stat } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import { DrawingError, type DrawingRead, piecesOfDrawing, readDxf, readPlot, readSvg } from '@nuvet/core/formats';
import { emptyJob, type Job, type ProcessEntry, strokeOutlined } from '@nuvet/core/job';
import { english } from '@nuvet/core/messages';
import { checkedJobSchema, faultsOfJob, processKinds } from '@nuvet/core/processes';
import { type Finding, findingsOf } from '@nuvet/core/proof';
import { finished } from '@nuvet/core/steps';
import { UsageError } from './arguments.ts';
import type { StockSaid } from './making-arguments.ts';

export interface JobFileRequest {
  readonly file: string;
  readonly stock: StockSaid;
  readonly thinnestMm: number | null;
  /** Of wide lines in a drawing their middle or their outline. */
  readonly strokes: 'middle' | 'outline';
}

export interface JobFile {
  readonly job: Job;
  readonly findings: readonly Finding[];
  /** What in the file is left aside, a line each. */
  readonly notes: readonly string[];
  /** Whether something that is seen in the drawing is left aside. */
  readonly hasLost: boolean;
}

/** No drawing that a hand has made is larger. */
const maxBytes = 64e6;

/** @throws UsageError where the file cannot be used */
export async function readJobFile({ file, stock, thinnestMm, strokes }: JobFileRequest): Promise<JobFile> {
  const cannot = (error: NodeJS.ErrnoException) =>
    new UsageError(`${file}: cannot be read (${error.code === 'ENOENT' ? 'there is no such file' : error.code})`);
  const { size } = await stat(file).catch((error) => {
    throw cannot(error);
  });
  if (size > maxBytes) throw new UsageError(`${file}: is larger than ${maxBytes / 1e6} MB`);
  const text = await readFile(file, 'utf8').catch((error) => {
    throw cannot(error);
  });
  const kind = drawingKinds[extname(file).toLowerCase()];
  const read = kind ? jobOfDrawing(file, kind, text, strokes) : { job: jobOfDocument(file, text), notes: [], hasLost: false };
  const stocked = withStock(read.job, stock);
  const job = thinnestMm === null ? stocked : { ...stocked, proof: { ...stocked.proof, thinnestMm } };
  return { ...read, job, findings: findingsOf(job, faultsOfJob(job)) };
}

function jobOfDocument(file: string, text: string): Job {
  let plain: unknown;
  try {
    plain = JSON.parse(text);
  } catch {
    throw new UsageError(`${file}: neither a job’s document nor an SVG, DXF or HPGL file`);
  }
  const parsed = checkedJobSchema.safeParse(plain);
  if (parsed.success) return parsed.data;
  const [first] = parsed.error.issues;
  const place = first?.path.map(String).join(' ');
  throw new UsageError(`${file}: not a job’s document (${place ? `${place}: ` : ''}${first?.message ?? 'it is empty'})`);
}

/** Drawing files by their endings. */
const drawingKinds: Readonly<Record<string, keyof typeof readers>> = {
  '.svg': 'svg',
  '.dxf': 'dxf',
  '.plt': 'hpgl',
  '.hpgl': 'hpgl',
  '.hpg': 'hpgl',
};
const readers = { svg: readSvg, dxf: readDxf, hpgl: readPlot } as const;

function jobOfDrawing(file: string, kind: keyof typeof readers, text: string, strokes: 'middle' | 'outline'): Omit<JobFile, 'findings'> {
  const name = basename(file, extname(file)).slice(0, 100) || 'drawing';
  try {
    const read: DrawingRead = finished(readers[kind](text));
    const { pieces, notes, hasLost } = finished(piecesOfDrawing(read, 'outline'));
    const { mmPerUnit, unitIsStated } = read;
    const drawing = { id: 'drawing', name, kind, unitIsStated, mmPerUnit, hidden: false } as const;
    const taken = strokes === 'outline' ? pieces.flatMap(strokeOutlined) : pieces;
    const wide = taken.filter(({ strokeShape }) => strokeShape !== undefined);
    const told =
      wide.length > 0 ? [english.files.wideLines(wide.length, Math.max(...wide.map(({ strokeMm }) => strokeMm ?? 0)).toFixed(1))] : [];
    return {
      job: { ...emptyJob(name), drawings: [{ ...drawing, notes: notes.slice(0, 50), pieces: taken }] },
      notes: [...notes, ...told],
      hasLost,
    };
  } catch (error) {
    if (error instanceof DrawingError) throw new UsageError(`${file}: ${error.message}`);
    throw error;
  }
}

function withStock(job: Job, { name, thicknessMm, sheet, kerfMm }: StockSaid): Job {
  const { stock, processes } = job.making;
  return {
    ...job,
    making: {
      ...job.making,
      stock: {
        ...stock,
        name: name ?? stock.name,
        thicknessMm: thicknessMm ?? stock.thicknessMm,
        widthMm: sheet?.widthMm ?? stock.widthMm,
        heightMm: sheet?.heightMm ?? stock.heightMm,
      },
      processes: kerfMm === null ? processes : processes.map((entry) => withKerf(entry, kerfMm)),
    },
  };
}

/** Only processes that take something away have a kerf. */
export const withKerf = (entry: ProcessEntry, kerfMm: number): ProcessEntry =>
  'kerfMm' in (processKinds[entry.process]?.plain ?? {}) ? { ...entry, settings: { ...entry.settings, kerfMm } } : entry;
