/**
 * In: a request. Out: the trued-up picture as a PNG that states its resolution, and a line on standard output.
 */
import sharp from 'sharp';
import type { TrueUpRequest } from './arguments.ts';
import { fitted, lensSaid, warningsOn } from './fitting.ts';
import { rectified } from './flat-picture.ts';
import { done, type Io, type Outcome } from './io.ts';
import { reportOnFit, reportOnLens } from './report.ts';
import { reportText, trueUpReport } from './report-schemas.ts';
import { writeWholeFiles } from './whole-files.ts';

export async function trueUp(request: TrueUpRequest, io: Io): Promise<Outcome> {
  const { picture, fit, lens } = await fitted(request, io);
  const { pixels, plan } = rectified(picture.pixels, fit);
  const { width, height, grey, colour } = pixels;
  const image = sharp(colour ?? grey, { raw: { width, height, channels: colour ? 3 : 1 }, limitInputPixels: false });
  const png = await (colour ? image : image.toColourspace('b-w'))
    .withMetadata({ density: 25.4 / plan.mmPerPx })
    .png()
    .toBuffer();
  const files = new Map<string, string | Uint8Array>([[request.out, png]]);
  if (request.report) files.set(request.report, reportText(trueUpReport, { ...reportOnFit(fit), lens: reportOnLens(lens) }));
  await writeWholeFiles(files, { force: request.force, inputs: [request.picture] });
  const size = `${(width * plan.mmPerPx).toFixed(2)} x ${(height * plan.mmPerPx).toFixed(2)} mm`;
  return done([
    `${request.out}: ${width} x ${height} px, ${size}, ${(25.4 / plan.mmPerPx).toFixed(2)} dpi`,
    ...lensSaid(lens),
    ...warningsOn(fit).map((w) => `look: ${w}`),
  ]);
}
