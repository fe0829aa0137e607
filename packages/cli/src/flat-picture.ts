/**
 * In: a picture and its fit. Out: the picture straight and flat, its pixels along the sheet.
 */
import { type Pixels, warped } from '@nuvet/core/raster';
import { type RectificationPlan, rectificationPlan, type TrueUpFit } from '@nuvet/core/trueup';
import { UsageError } from './arguments.ts';

const maxPixels = 100e6;

/** Whole pixels a metre, as a PNG can state them: so the file's own resolution is exact. */
const exactly = (mmPerPx: number): number => 1000 / Math.max(1, Math.round(1000 / mmPerPx));

/** @throws UsageError where it would have too many pixels */
export function rectified(pixels: Pixels, fit: TrueUpFit): { pixels: Pixels; plan: RectificationPlan } {
  const plan = rectificationPlan(fit, exactly(fit.mmPerPx));
  if (plan.widthPx * plan.heightPx > maxPixels)
    throw new UsageError('the trued-up picture would have more than 100 megapixels; crop it, or take a smaller one');
  const steps = warped(pixels, plan);
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return { pixels: step.value, plan };
}
