/** What a mark measures, in words. */
import { type Job, type Mark, measuredBy } from '@nuvet/core/job';
import { printInches, printMm } from '@nuvet/core/length';
import { distance, type Point } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import { words } from '@/words';
import { markViews } from './mark-views';

/** The word beside a mark on the table. */
export const markReading = (mark: Mark, fit: TrueUpFit, unit: Job['unit']): string =>
  markViews[mark.kind].reading?.(mark.stated.map((s) => s.text)) ?? measuredText(mark, fit, unit, true);

/** What a check comes to; before the true size is known a distance is only so many pixels. */
export function measuredText(mark: Pick<Mark, 'kind' | 'points'>, fit: TrueUpFit, unit: Job['unit'], isShort = false): string {
  const measured = measuredBy(mark, fit);
  if (!measured) return '';
  if (measured.what === 'angle') return `${measured.value.toFixed(2)}°`;
  if (fit.model === 'unsized') return words.trueUp.pixelLength(pixelsAlong(mark.points).toFixed(1));
  const length = unit === 'in' && isShort ? printInches(measured.value) : printMm(measured.value);
  return measured.what === 'radius' ? `R ${length}` : length;
}

const pixelsAlong = (points: readonly Point[]): number => points.slice(1).reduce((sum, p, k) => sum + distance(points[k] as Point, p), 0);
