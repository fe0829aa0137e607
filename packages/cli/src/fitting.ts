/**
 * In: a picture and how it is to be trued up. Out: its fit, with the marks that were found in it.
 */
import { bentEdges, greyPicture, inkContours, mainDirection, straightRuns, unbentPixels } from '@nuvet/core/raster';
import {
  checkLineMm,
  type FoundLens,
  findScaleCard,
  fitTrueUp,
  lensOfPhotograph,
  TrueUpError,
  type TrueUpFit,
  type TrueUpMark,
} from '@nuvet/core/trueup';
import { type SizingRequest, UsageError } from './arguments.ts';
import type { Io } from './io.ts';
import { type ReadPicture, readPicture } from './picture.ts';

const pdfDpi = 300;
const shortestRunPx = 60;

/** A picture with its fit; where the lens had bent it, the bend is taken out of the picture and of the marks that were given. */
export interface Fitted {
  readonly picture: ReadPicture;
  readonly fit: TrueUpFit;
  readonly marks: readonly TrueUpMark[];
  readonly lens: FoundLens | null;
}

/** Edges that tell of a lens are at least this share of the picture's diagonal. */
const shortestEdge = 0.12;

/** A photograph, in which a frame or the scale card is known, without what its lens has bent. */
function withoutLens(picture: ReadPicture, { marks, scaleCard, lens: asked }: SizingRequest): Pick<Fitted, 'picture' | 'marks' | 'lens'> {
  const frames = marks.filter(({ kind }) => kind === 'frame').map(({ points }) => points);
  if (asked === 'off' || (frames.length === 0 && !scaleCard)) return { picture, marks, lens: null };
  const { grey } = picture;
  const edges = bentEdges(inkContours(grey), shortestEdge * Math.hypot(grey.width, grey.height), grey);
  const lens = lensOfPhotograph(edges, frames, grey);
  if (!lens) return { picture, marks, lens: null };
  const { pixels, at } = unbentPixels(picture.pixels, lens);
  return {
    picture: { ...picture, pixels, grey: greyPicture(pixels.grey, pixels.width, pixels.height) },
    marks: marks.map((mark) => ({ ...mark, points: mark.points.map(at) })),
    lens,
  };
}

/** @throws UsageError where the picture cannot be read, the marks cannot be used, or the true size stays unknown */
export async function fitted(request: SizingRequest, io: Io): Promise<Fitted> {
  const { picture, marks: given, lens } = withoutLens(await readPicture(request, request.dpi ?? pdfDpi, io), request);
  const marks = [...given, ...(request.scaleCard ? [cardIn(picture, request)] : []), ...(request.straighten ? straightened(picture) : [])];
  const size = { widthPx: picture.grey.width, heightPx: picture.grey.height };
  try {
    const fit = fitTrueUp(size, marks, request.dpi ?? picture.dpi, { pinned: request.model });
    if (fit.unitMistakes.some((s) => s.isEither)) throw new UsageError(`the true size is not known: ${warningsOn(fit).join('; ')}`);
    if (fit.model === 'unsized') throw new UsageError('the true size is not known: add --dpi N or --known X1,Y1,X2,Y2=LENGTH');
    if (request.model && fit.model !== request.model)
      throw new UsageError(`--model ${request.model}: these marks cannot carry it; they carry ${fit.carried.join(', ') || 'none'}`);
    return { picture, fit, marks: given, lens };
  } catch (error) {
    if (error instanceof TrueUpError) throw new UsageError(`${error.markId}: ${error.message}`);
    throw error;
  }
}

function cardIn({ grey }: ReadPicture, { picture }: SizingRequest): TrueUpMark {
  const card = findScaleCard(grey);
  if (!card) throw new UsageError(`${picture}: the scale card was not found; two of its squares at least must be in sight`);
  return { kind: 'scale-card', id: 'scale card', points: card.points, places: card.places, stated: [checkLineMm] };
}

/** A line along the main direction through the picture's middle; none where no direction stands out. */
function straightened({ grey }: ReadPicture): TrueUpMark[] {
  const found = mainDirection(straightRuns(inkContours(grey), shortestRunPx, grey));
  if (!found) return [];
  const half = Math.min(grey.width, grey.height) / 3;
  const [dx, dy] = [Math.cos(found.turn) * half, Math.sin(found.turn) * half];
  const [x, y] = [grey.width / 2, grey.height / 2];
  return [{ kind: 'level', id: 'straighten', points: [{ x: x - dx, y: y - dy }, { x: x + dx, y: y + dy }], stated: [] }]; // biome-ignore format: one line
}

/** What was taken out of a photograph, in a line. */
export const lensSaid = (lens: FoundLens | null): string[] =>
  lens ? [`lens: edges were bowed by up to ${lens.bowedPx.toFixed(1)} px, which is taken out (${lens.edges} edges agree; --lens off leaves it)`] : []; // biome-ignore format: one line

/** What a person should look at, a line each. */
export function warningsOn(fit: TrueUpFit): string[] {
  const unitMistakes = fit.unitMistakes.map((s) =>
    s.isEither
      ? `${s.id} does not agree with the other mark: it would if it were ${s.looksLike}; neither is used`
      : `${s.id} does not agree with the other marks: it looks like ${s.looksLike}; it was set aside`,
  );
  const crossed = fit.crossedFrames.map((id) => `${id}: its corners were given crosswise and are taken in turn`);
  const outliers = fit.outliers.map((s) => `${s.id} does not agree with the other marks`);
  return [...unitMistakes, ...crossed, ...outliers];
}
