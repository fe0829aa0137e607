/**
 * What marks are called, and what each reads as beside itself on the table.
 */
import { type Job, type Mark, measuredBy } from '@nuvet/core/job';
import { printInches, printMm } from '@nuvet/core/length';
import { distance, type Point } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import { words } from '@/words';

export const markWords: Record<Mark['kind'], string> = {
  'known-length': words.trueUp.knownLength,
  level: words.trueUp.levelLine,
  plumb: words.trueUp.plumbLine,
  'right-angle': words.trueUp.rightAngle,
  frame: words.trueUp.frame,
  circle: words.trueUp.circle,
  box: words.trueUp.box,
  clearance: words.trueUp.clearance,
  'scale-card': words.trueUp.scaleCard,
  check: words.trueUp.distance,
  'check-angle': words.trueUp.angle,
  'check-radius': words.trueUp.radius,
  'check-along': words.trueUp.lengthAlong,
};

/** What is asked for, in the order of the mark's statements. */
export const statedWords: Partial<Record<Mark['kind'], readonly string[]>> = {
  'known-length': [words.trueUp.itsTrueLength],
  frame: [words.trueUp.itsTrueWidth, words.trueUp.itsTrueHeight],
  circle: [words.trueUp.itsTrueDiameter],
  box: [words.trueUp.widthItMustHave, words.trueUp.heightItMustHave],
  clearance: [words.trueUp.ballOrToolThatMustPass, words.trueUp.clearanceAroundIt],
  'scale-card': [words.trueUp.itsCheckLineMeasures],
  check: [words.trueUp.expectedLengthOptional],
  'check-radius': [words.trueUp.statedRadiusIfAny],
  'check-along': [words.trueUp.expectedLengthOptional],
};

/** The word beside a mark on the table. */
export function markReading(mark: Mark, fit: TrueUpFit, unit: Job['unit']): string {
  const stated = mark.stated.map((s) => s.text);
  switch (mark.kind) {
    case 'known-length':
      return stated[0] || words.trueUp.lengthUnknown;
    case 'frame':
    case 'box':
      return `${stated[0] || words.trueUp.widthUnknown} x ${stated[1] || words.trueUp.heightUnknown}`;
    case 'circle':
      return stated[0] ? `⌀ ${stated[0]}` : words.trueUp.diameterUnknown;
    case 'clearance':
      return stated[0] ? words.trueUp.takes(stated[0]) : words.trueUp.takesUnknown;
    case 'level':
    case 'plumb':
      return mark.kind;
    case 'right-angle':
      return '90°';
    case 'scale-card':
      return words.trueUp.scaleCardReading;
    default:
      return measuredText(mark, fit, unit, true);
  }
}

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
