/**
 * In: a request. Out: the files that it asks for, and a line a file on standard output.
 */
import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { writeDxf, writeSvg } from '@nuvet/core/formats';
import { overallBox, traceOnSheet } from '@nuvet/core/job';
import { heightOf, widthOf } from '@nuvet/core/plane';
import { tracePicture } from '@nuvet/core/trace';
import { fitTrueUp, TrueUpError, type TrueUpFit } from '@nuvet/core/trueup';
import { type TraceRequest, UsageError } from './arguments.ts';
import { readPicture } from './picture.ts';
import { reportOn } from './report.ts';
import { writeWholeFiles } from './whole-files.ts';

export async function trace(request: TraceRequest): Promise<string[]> {
  const { picture, dpi } = await readPicture(request.picture);
  const size = { widthPx: picture.width, heightPx: picture.height };
  const fit = fitted(size, request, dpi);
  if (fit.model === 'unsized') {
    throw new UsageError('the true size is not known: add --dpi N or --known X1,Y1,X2,Y2=LENGTH');
  }
  const traced = tracePicture(picture, fit.mmPerPx, request.settings);
  if (traced.pieces.length === 0) {
    throw new UsageError(`${request.picture}: no shape was found; try another --threshold or a smaller --smallest`);
  }
  const asPicture = { id: randomUUID(), name: basename(request.picture), ...size, resolution: null, opacity: 1, marks: [] };
  const { pieces, threshold } = traceOnSheet(asPicture, request.settings, traced, fit);
  const title = basename(request.picture).replace(/\.[^.]+$/, '');
  const files = new Map(request.out.map((file) => [file, /\.svg$/i.test(file) ? writeSvg(pieces, title) : writeDxf(pieces, title)]));
  if (request.report) files.set(request.report, `${JSON.stringify(reportOn(fit, pieces, threshold), null, 2)}\n`);
  await writeWholeFiles(files);
  const box = overallBox(pieces);
  const overall = box ? `${widthOf(box).toFixed(2)} x ${heightOf(box).toFixed(2)} mm` : '';
  return [...files.keys()].map((file) => `${file}: ${pieces.length} pieces, ${overall}`);
}

function fitted(size: { widthPx: number; heightPx: number }, request: TraceRequest, fileDpi: number | null): TrueUpFit {
  try {
    return fitTrueUp(size, request.marks, request.dpi ?? fileDpi);
  } catch (error) {
    if (error instanceof TrueUpError) throw new UsageError(error.message);
    throw error;
  }
}
