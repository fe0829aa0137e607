/**
 * A first look at a trace, from a picture halved a few times: quick enough to be seen while a slider moves.
 */
import { type JobTrace, type JobTraceSettings, type Picture, type RasterSource, traceOnSheet } from '@nuvet/core/job';
import { chain, stretch } from '@nuvet/core/plane';
import { downsample, onlyInside } from '@nuvet/core/raster';
import { findInk, firstLook } from '@nuvet/core/trace';
import { framesOf, type Held, holding, limitsOn } from './held-picture';

/** Pictures longer than this are looked at coarsely first, so that a slider's move shows at once; px. */
const coarsePx = 1300;

/** The picture halved, where that is worth while and its greys have been read. */
function coarseOf(raster: RasterSource): Held['coarse'] {
  const own = holding(raster);
  if (!own.grey || Math.max(own.grey.width, own.grey.height) <= 1.5 * coarsePx) return undefined;
  own.coarse ??= downsample(own.grey, coarsePx);
  return own.coarse;
}

/**
 * A first look at a trace, on a picture halved a few times; null where that would be no quicker, or needs what is not read
 * yet.
 */
export function coarseTrace(picture: Picture, raster: RasterSource, settings: JobTraceSettings): JobTrace | null {
  const coarse = settings.colours.length > 0 || settings.take !== 'shape' ? undefined : coarseOf(raster);
  if (!coarse) return null;
  const { factor } = coarse;
  const mmPerPx = raster.mmPerPx * factor;
  const { threshold, inverted, smallestMm, keepsTexture, within, aroundFrame } = settings;
  const own = holding(raster);
  const key = JSON.stringify([
    threshold,
    inverted,
    smallestMm,
    keepsTexture,
    mmPerPx,
    picture.crop,
    within,
    aroundFrame,
    framesOf(picture),
  ]);
  if (own.coarseInk?.key !== key) {
    const { outlines } = limitsOn(picture, raster, settings, own.grey);
    const small = outlines.reduce(
      (grey, outline) =>
        onlyInside(
          grey,
          outline.map(({ x, y }) => ({ x: x / factor, y: y / factor })),
          inverted,
        ),
      coarse.picture,
    );
    own.coarseInk = { key, ink: findInk(small, mmPerPx, settings) };
  }
  const found = firstLook(own.coarseInk.ink, mmPerPx, settings);
  return traceOnSheet(picture, settings, found, { toSheet: chain(raster.toSheet, stretch(factor)), mmPerPx });
}

/** How often a first look is tried beforehand: an engine makes quick code only of what has run a few times. */
const rehearsals = 4;

/** The first move of a slider shall find all that a first look needs. */
export function prepareLooks(picture: Picture, raster: RasterSource, settings: JobTraceSettings): void {
  if (holding(raster).coarse) return;
  for (let k = 0; k < rehearsals; k++) coarseTrace(picture, raster, settings);
}
