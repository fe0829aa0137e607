/**
 * In: a mark and its picture's fit. Out: what the mark measures on the sheet.
 */
import { project } from '../plane/projection.ts';
import { type Measured, markKinds, type TrueUpFit } from '../trueup/index.ts';
import type { Mark } from './schema.ts';

/** Null for marks that measure nothing by themselves, such as a box. */
export const measuredBy = ({ kind, points }: Pick<Mark, 'kind' | 'points'>, fit: TrueUpFit): Measured | null =>
  markKinds[kind].measured?.(points.map((q) => project(fit.projection, q))) ?? null;
