/**
 * In: a request. Out: the files that it asks for, each read back before it is written, and a line a file.
 */
import { writeTiles } from '@nuvet/core/formats';
import type { Job, Setup } from '@nuvet/core/job';
import { type CutPlan, type FileKind, FileRefused, madeFile, outlinesToWrite, piecesToMake, plannedCut, tiled } from '@nuvet/core/make';
import { UsageError } from './arguments.ts';
import { done, type Io, type Outcome } from './io.ts';
import type { MakeRequest } from './making-arguments.ts';
import { jobFileIn } from './prove.ts';
import { writeWholeFiles } from './whole-files.ts';

/** A knife draws its corners round and takes nothing away; a laser may. */
function setupFor({ way, paper, landscape }: MakeRequest, { setup }: Job): Setup {
  const cutting = way === 'laser' ? setup.cutting : { ...setup.cutting, kerfMm: 0, lead: { ...setup.cutting.lead, kind: 'none' as const } };
  return { ...setup, cutting, printing: { ...setup.printing, paper, landscape } };
}

export async function make(request: MakeRequest, io: Io): Promise<Outcome> {
  const { file, stock, limitS } = request;
  const { job, findings, notes } = await jobFileIn(io, { file, stock, thinnestMm: null }, limitS);
  const stop = findings.find((f) => f.weight === 'stops');
  if (stop && !request.anyway) throw new UsageError(`${request.file}: ${stop.message} Mend it, or say --anyway`);
  const setup = setupFor(request, job);
  const pieces = piecesToMake(job);
  const plan = plannedCut(pieces, setup.cutting, setup.machine);
  const files = new Map<string, Uint8Array>();
  const told: { file: string; largestMm: number | null; widthMm: number | null; heightMm: number | null; pages?: number }[] = [];
  for (const { path, kind } of request.out) {
    if (request.way === 'paper' && kind === 'pdf') {
      const outlines = outlinesToWrite(pieces, setup);
      const tiling = tiled(
        outlines.flatMap((p) => [p.outer, ...p.holes]),
        setup.printing,
      );
      files.set(path, await writeTiles(outlines, tiling, job.name, null));
      told.push({ file: path, largestMm: null, widthMm: null, heightMm: null, pages: tiling.pages.length });
      continue;
    }
    const made = await oneFile(kind, job, setup, plan, request);
    files.set(path, made.bytes);
    told.push({ file: path, largestMm: made.largestMm, widthMm: made.widthMm, heightMm: made.heightMm });
  }
  await writeWholeFiles(files);
  const { kerfMm } = setup.cutting;
  const looks = [...findings.map((f) => f.message), ...plan.lost.map((l) => l.message)];
  if (request.json) {
    const lost = plan.lost.map((l) => l.message);
    return done([
      JSON.stringify(
        { job: job.name, files: told, kerfMm, thicknessMm: job.making.thicknessMm, lost, looks, notes, travelMm: plan.travelMm },
        null,
        2,
      ),
    ]);
  }
  return done([
    ...told.map(({ file, largestMm, widthMm, heightMm, pages }) =>
      pages === undefined
        ? `${file}: ${largestMm?.toFixed(3)} mm off at most, ${widthMm?.toFixed(2)} x ${heightMm?.toFixed(2)} mm`
        : `${file}: ${pages} ${pages === 1 ? 'page' : 'pages'} of ${request.paper} and a map; print at 100 %`,
    ),
    request.way === 'laser'
      ? `kerf: ${kerfMm} mm${kerfMm === 0 ? ', so that nothing is compensated' : ''}`
      : 'kerf: none, a blade takes nothing away',
    ...looks.map((message) => `look: ${message}`),
    ...notes.map((note) => `note: ${note}`),
  ]);
}

async function oneFile(kind: FileKind, job: Job, setup: Setup, plan: CutPlan, { dpi, file }: MakeRequest) {
  try {
    return await madeFile(kind, piecesToMake(job), { title: job.name, setup, plan, dpi });
  } catch (error) {
    if (error instanceof FileRefused) throw new UsageError(`${file}: ${error.message}`);
    throw error;
  }
}
