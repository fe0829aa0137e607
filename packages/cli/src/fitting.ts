/**
 * In: a picture and how it is to be trued up. Out: its fit, with the marks that were found in it.
 */
import { inkContours, mainDirection, straightRuns } from '@nuvet/core/raster';
import { checkLineMm, findScaleCard, fitTrueUp, TrueUpError, type TrueUpFit, type TrueUpMark } from '@nuvet/core/trueup';
import { type SizingRequest, UsageError } from './arguments.ts';
import type { Io } from './io.ts';
import { type ReadPicture, readPicture } from './picture.ts';

const pdfDpi = 300;
const shortestRunPx = 60;

/** @throws UsageError where the picture cannot be read, the marks cannot be used, or the true size stays unknown */
export async function fitted(request: SizingRequest, io: Io): Promise<{ picture: ReadPicture; fit: TrueUpFit }> {
  const picture = await readPicture(request, request.dpi ?? pdfDpi, io);
  const marks = [
    ...request.marks,
    ...(request.scaleCard ? [cardIn(picture, request)] : []),
    ...(request.straighten ? straightened(picture) : []),
  ];
  const size = { widthPx: picture.grey.width, heightPx: picture.grey.height };
  try {
    const fit = fitTrueUp(size, marks, request.dpi ?? picture.dpi, { pinned: request.model });
    if (fit.unitMistakes.some((s) => s.isEither)) throw new UsageError(`the true size is not known: ${warningsOn(fit).join('; ')}`);
    if (fit.model === 'unsized') throw new UsageError('the true size is not known: add --dpi N or --known X1,Y1,X2,Y2=LENGTH');
    if (request.model && fit.model !== request.model)
      throw new UsageError(`--model ${request.model}: these marks cannot carry it; they carry ${fit.carried.join(', ') || 'none'}`);
    return { picture, fit };
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
