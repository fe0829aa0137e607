/**
 * In: a request. Out: the files that it asks for, and a line a file on standard output.
 */
import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { writeDxf, writeSvg } from '@nuvet/core/formats';
import {
  frameToTraceIn,
  type JobTrace,
  newPicture,
  overallBox,
  type Piece,
  type RasterSource,
  rasterSourceOf,
  relatedPieces,
  traceOnSheet,
} from '@nuvet/core/job';
import { heightOf, inverseProjection, type Point, project, widthOf } from '@nuvet/core/plane';
import { type ColourPicture, coloursInside, greyPicture, onlyInside, type Pixels } from '@nuvet/core/raster';
import { symmetriesOf, symmetrize, type TraceSettings, traceColours, tracePicture } from '@nuvet/core/trace';
import { type SymmetryRequest, type TraceRequest, UsageError } from './arguments.ts';
import { fitted, lensSaid, warningsOn } from './fitting.ts';
import { rectified } from './flat-picture.ts';
import { done, type Io, type Outcome } from './io.ts';
import { reportOnLens, reportOnPieces } from './report.ts';
import { reportText, traceReport } from './report-schemas.ts';
import { writeWholeFiles } from './whole-files.ts';

export async function trace(request: TraceRequest, io: Io): Promise<Outcome> {
  const { picture, fit, marks, lens } = await fitted(request, io);
  const { width: widthPx, height: heightPx } = picture.grey;
  const asPicture = newPicture({ id: randomUUID(), name: basename(request.picture), widthPx, heightPx, resolution: null });
  // Under perspective the picture is laid flat first; else it is traced as it is and its outlines are moved.
  const flat = fit.model === 'perspective' ? rectified(picture.pixels, fit) : null;
  const grey = flat ? greyPicture(flat.pixels.grey, flat.pixels.width, flat.pixels.height) : picture.grey;
  const raster: Pick<RasterSource, 'toSheet' | 'mmPerPx'> = flat?.plan ?? {
    ...rasterSourceOf(asPicture, null),
    toSheet: fit.toSheet,
    mmPerPx: fit.mmPerPx,
  };
  const back = flat ? inverseProjection(flat.plan.toOriginal) : null;
  const frames = marks.flatMap((mark) => (mark.kind === 'frame' ? [mark.points.map((p) => (back ? project(back, p) : p))] : []));
  const frame = frameToTraceIn(frames, raster.mmPerPx, request.settings, grey);
  const inside = <T>(whole: T, limited: (whole: T, outline: readonly Point[]) => T): T => (frame ? limited(whole, frame) : whole);
  const traced =
    request.settings.colours.length > 0
      ? traceColours(inside(inColour(flat?.pixels ?? picture.pixels), coloursInside), raster.mmPerPx, request.settings)
      : tracePicture(inside(grey, onlyInside), raster.mmPerPx, request.settings);
  if (traced.pieces.length === 0) {
    throw new UsageError(`${request.picture}: no shape was found; try another --threshold or a smaller --smallest`);
  }
  const onSheet = traceOnSheet(asPicture, request.settings, traced, raster, fit, frame !== null);
  const { threshold, isUneven = false, dotPitchMm = null, isGrainy = false } = onSheet;
  const isBorder = ({ isScanBorder }: Piece): boolean => isScanBorder === true && !request.borders;
  const tracedPieces = onSheet.pieces.filter((piece) => !isBorder(piece));
  const symmetricPieces =
    request.symmetry === null ? tracedPieces : symmetric(tracedPieces, request.symmetry, raster.mmPerPx, request.settings);
  const pieces = request.relations ? related(symmetricPieces, request.settings.toleranceMm) : symmetricPieces;
  const title = basename(request.picture).replace(/\.[^.]+$/, '');
  const files = new Map<string, string>(
    request.out.map((file) => [file, /\.svg$/i.test(file) ? writeSvg(pieces, title) : writeDxf(pieces, title)]),
  );
  if (request.report)
    files.set(
      request.report,
      reportText(traceReport, {
        ...reportOnPieces(fit, pieces, { threshold, unevenLight: isUneven, dotPitchMm, grainSmoothed: isGrainy }),
        lens: reportOnLens(lens),
      }),
    );
  await writeWholeFiles(files, { force: request.force, inputs: [request.picture] });
  const box = overallBox(pieces);
  const overall = box ? `${widthOf(box).toFixed(2)} x ${heightOf(box).toFixed(2)} mm` : '';
  return done([
    ...[...files.keys()].map((file) => `${file}: ${pieces.length} ${pieces.length === 1 ? 'piece' : 'pieces'}, ${overall}`),
    ...lensSaid(lens),
    ...warningsOn(fit).map((w) => `look: ${w}`),
    ...(onSheet.pieces.some(isBorder) ? ['look: the dark border of the scan was left out; --borders keeps it'] : []),
    ...toldOfInk(onSheet),
    ...(frame ? ['look: traced inside the framed sheet only; --around-frame traces what lies around it, too'] : []),
  ]);
}

/** A picture in grey has the same in all three channels. */
function inColour({ width, height, grey, colour }: Pixels): ColourPicture {
  if (colour) return { width, height, data: colour };
  const data = new Uint8Array(3 * grey.length);
  for (const [p, v] of grey.entries()) data.fill(v, 3 * p, 3 * p + 3);
  return { width, height, data };
}

/** What leaves a symmetry by no more than this was meant to have it, root mean square, mm. */
const nearlyMm = 0.6;

/** The pieces that nearly have the wished symmetry, made exactly so; the rest as they are. */
function symmetric(pieces: readonly Piece[], wish: SymmetryRequest, mmPerPx: number, { toleranceMm }: TraceSettings): Piece[] {
  return pieces.map((piece) => {
    if (!piece.outer.closed) return piece;
    const found = symmetriesOf(piece, nearlyMm);
    const meant =
      wish === 'auto'
        ? found[0]
        : found.find((s) => (wish === 'mirror' ? s.kind === 'mirror' : s.kind === 'turned' && s.order % wish === 0));
    const asked = meant?.kind === 'turned' && typeof wish === 'number' ? { ...meant, order: wish } : meant;
    const made = asked && symmetrize(piece, asked, mmPerPx, toleranceMm);
    return made ? { ...piece, outer: made.outer, holes: [...made.holes] } : piece;
  });
}

/** The pieces with what their segments nearly are to one another made exact. */
function related(pieces: readonly Piece[], toleranceMm: number): Piece[] {
  const made = new Map(
    [...relatedPieces(pieces, [], toleranceMm)].flat().map(({ piece, outer, holes }) => [piece, { ...piece, outer, holes: [...holes] }]),
  );
  return pieces.map((piece) => made.get(piece) ?? piece);
}

/** What was made of the ink unasked. */
const toldOfInk = ({ dotPitchMm, isGrainy, isUneven, threshold }: JobTrace): string[] => [
  ...(dotPitchMm === undefined
    ? []
    : [`look: printed in dots ${dotPitchMm.toFixed(2)} mm apart, which were smoothed to even greys; --texture traces them one by one`]),
  ...(isGrainy ? ['look: strokes that grain breaks up were joined along themselves; --texture traces them as they are'] : []),
  ...(isUneven
    ? [
        `look: the light falls off over the picture, so every place has a threshold of its own; --threshold ${Math.round(threshold)} uses one`,
      ]
    : []),
];
