/**
 * In: a picture of a job. Out: its true-up fit, and what the table and the tracer work on: the picture itself, or
 * the plan of a working copy where the fit is a perspective one. The same picture gives the same objects.
 */
import { inverseProjection, type Projection, type Transform } from '../plane/index.ts';
import {
  fitTrueUp,
  isCheck,
  isPulling,
  markKinds,
  type RectificationPlan,
  rectificationPlan,
  type TrueUpFit,
  type TrueUpMark,
} from '../trueup/index.ts';
import type { Mark, Picture } from './schema.ts';

/** Of a box by one side, how many times as large the other may be. */
const unbounded = 1e4;

/** The marks that pull: all but checks, with all that they state typed. */
export function pullingMarks(picture: Picture): TrueUpMark[] {
  return picture.marks.flatMap(({ kind, id, points, stated, boxFit, places }): TrueUpMark[] => {
    if (!isPulling(kind)) return [];
    const values = stated.map((s) => s.value);
    const [only] = values.filter((v) => v !== null && v > 0);
    // One side of a box is enough: the other is whatever it comes to.
    if (markKinds[kind].oneIsEnough && only && values.some((v) => v === null || v === 0))
      return [{ kind, id, points, stated: values.map((v) => v || only * unbounded), boxFit: 'contained' }];
    if (values.some((v, k) => v === null || (v === 0 && k === 0))) return [];
    return [{ kind, id, points, stated: values as number[], ...(boxFit ? { boxFit } : {}), ...(places ? { places } : {}) }];
  });
}

/** Whether a mark still waits for what it states. A check may go without. */
export const isWaiting = (mark: Mark): boolean =>
  !isCheck(mark) && (markKinds[mark.kind].oneIsEnough ? mark.stated.every(isUntyped) : mark.stated.some(isUntyped));
const isUntyped = ({ value }: Mark['stated'][number]): boolean => value === null;

const fits = new WeakMap<Picture, TrueUpFit>();

export function fitOf(picture: Picture): TrueUpFit {
  let fit = fits.get(picture);
  if (!fit) {
    const { resolution, pinned, quarterTurns, flipped, datum, place } = picture;
    const dpi = resolution?.trusted ? resolution.dpi : null;
    fit = fitTrueUp(picture, pullingMarks(picture), dpi, { pinned, placing: { quarterTurns, flipped, datum, place } });
    fits.set(picture, fit);
  }
  return fit;
}

/** The plan of a working copy. */
export interface RectifiedPlan extends RectificationPlan {
  /** The same for the same copy, however the picture is moved about. */
  readonly key: string;
}

const maxWorkingPixels = 100e6;
/** A working copy has at most so many times the pixels of its original. */
const maxGrowth = 1.1;
const plans = new WeakMap<TrueUpFit, RectifiedPlan>();

/** The working copy that a perspective fit needs; null where the picture itself does. */
export function rectifiedPlanOf(picture: Picture): RectifiedPlan | null {
  const fit = fitOf(picture);
  if (fit.model !== 'perspective') return null;
  let plan = plans.get(fit);
  if (!plan) {
    plan = planned(picture, fit);
    plans.set(fit, plan);
  }
  return plan;
}

/** As fine as the original is in its middle, and no larger than fits. */
function planned(picture: Picture, fit: TrueUpFit): RectifiedPlan {
  const area = fit.sheetWidthMm * fit.sheetHeightMm;
  const mmPerPx = Math.max(fit.mmPerPx, Math.sqrt(area / Math.min(maxWorkingPixels, maxGrowth * picture.widthPx * picture.heightPx)));
  const plan = rectificationPlan(fit, mmPerPx);
  const { widthPx, heightPx, toOriginal } = plan;
  const key = [widthPx, heightPx, ...Object.values(toOriginal).map((v) => (v / toOriginal.i).toPrecision(8))].join(' ');
  return { ...plan, key };
}

/** What the table shows and the tracer reads: pixels, and where they lie on the sheet. */
export interface RasterSource {
  /** The picture, or its working copy. */
  readonly id: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mmPerPx: number;
  readonly toSheet: Transform;
  /** From the surface's pixels to the original's; null where they are the same. */
  readonly toOriginal: Projection | null;
}

/** @param workingId the working copy of the plan as it stands, if there is one */
export function rasterSourceOf(picture: Picture, workingId: string | null): RasterSource {
  const fit = fitOf(picture);
  const plan = rectifiedPlanOf(picture);
  if (plan && workingId) return { ...plan, id: workingId };
  const { id, widthPx, heightPx } = picture;
  return { id, widthPx, heightPx, mmPerPx: fit.mmPerPx, toSheet: fit.toSheet, toOriginal: null };
}

const originals = new WeakMap<RasterSource, Projection>();

/** A point of the original picture on a surface, pixels to pixels. */
export function fromOriginal(raster: RasterSource): Projection | null {
  if (!raster.toOriginal) return null;
  let back = originals.get(raster);
  if (!back) {
    back = inverseProjection(raster.toOriginal);
    originals.set(raster, back);
  }
  return back;
}
