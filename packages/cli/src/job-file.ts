/**
 * In: a job's document, an SVG or a DXF file. Out: the job; outlines of a drawing file become one with nothing else in it.
 */
import { readFile } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import { DrawingError, type DrawingRead, piecesOfDrawing, readDxf, readSvg } from '@nuvet/core/formats';
import { emptyJob, type Job, jobSchema } from '@nuvet/core/job';
import { z } from 'zod';
import { UsageError } from './arguments.ts';
import type { StockSaid } from './making-arguments.ts';

const finished = <T>(steps: Generator<number, T>): T => {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
};

export async function jobOf(file: string, stock: StockSaid): Promise<Job> {
  const text = await readFile(file, 'utf8').catch((error: NodeJS.ErrnoException) => {
    throw new UsageError(`${file}: cannot be read (${error.code === 'ENOENT' ? 'there is no such file' : error.code})`);
  });
  const kind = extname(file).toLowerCase();
  const job = kind === '.svg' || kind === '.dxf' ? jobOfDrawing(file, kind, text) : jobOfDocument(file, text);
  return withStock(job, stock);
}

function jobOfDocument(file: string, text: string): Job {
  let plain: unknown;
  try {
    plain = JSON.parse(text);
  } catch {
    throw new UsageError(`${file}: neither a job’s document nor an SVG or DXF file`);
  }
  const parsed = jobSchema.safeParse(plain);
  if (!parsed.success) throw new UsageError(`${file}: not a job’s document (${z.prettifyError(parsed.error).split('\n')[0]})`);
  return parsed.data;
}

function jobOfDrawing(file: string, kind: '.svg' | '.dxf', text: string): Job {
  const name = basename(file, extname(file)).slice(0, 100) || 'drawing';
  try {
    const read: DrawingRead = finished(kind === '.svg' ? readSvg(text) : readDxf(text));
    const pieces = finished(piecesOfDrawing(read, 'outline'));
    const { mmPerUnit, unitIsStated, notes } = read;
    return {
      ...emptyJob(name),
      drawings: [
        { id: 'drawing', name, kind: kind === '.svg' ? 'svg' : 'dxf', unitIsStated, mmPerUnit, hidden: false, notes: [...notes], pieces },
      ],
    };
  } catch (error) {
    if (error instanceof DrawingError) throw new UsageError(`${file}: ${error.message}`);
    throw error;
  }
}

function withStock(job: Job, { name, thicknessMm, sheet, kerfMm }: StockSaid): Job {
  const { making, setup } = job;
  return {
    ...job,
    making: { ...making, stock: name ?? making.stock, thicknessMm: thicknessMm ?? making.thicknessMm },
    setup: {
      ...setup,
      stockWidthMm: sheet?.widthMm ?? setup.stockWidthMm,
      stockHeightMm: sheet?.heightMm ?? setup.stockHeightMm,
      cutting: { ...setup.cutting, kerfMm: kerfMm ?? setup.cutting.kerfMm },
    },
  };
}
