/**
 * In: a true-up fit. Out: the plan of a picture that lies straight and flat on the sheet: how large, how fine, and how
 * its pixels lie in the original.
 */
import { asProjection, chainProjections, inverseProjection, type Projection } from '../plane/projection.ts';
import { stretch, type Transform } from '../plane/transform.ts';
import type { TrueUpFit } from './fit.ts';

export interface RectificationPlan {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mmPerPx: number;
  /** From the flat picture's pixels to the original's. */
  readonly toOriginal: Projection;
  /** From the flat picture's pixels to the sheet. */
  readonly toSheet: Transform;
}

/** @param mmPerPx how fine: what a pixel of the flat picture is on the sheet */
export function rectificationPlan(fit: TrueUpFit, mmPerPx: number): RectificationPlan {
  const { minX, maxY } = fit.sheetBox;
  const toSheet: Transform = { ...stretch(mmPerPx, -mmPerPx), e: minX, f: maxY };
  return {
    widthPx: Math.max(1, Math.round(fit.sheetWidthMm / mmPerPx)),
    heightPx: Math.max(1, Math.round(fit.sheetHeightMm / mmPerPx)),
    mmPerPx,
    toOriginal: chainProjections(inverseProjection(fit.projection), asProjection(toSheet)),
    toSheet,
  };
}
