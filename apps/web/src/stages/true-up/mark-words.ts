/**
 * What marks are called, and what each reads as beside itself on the table.
 */
import { type Job, type Mark, measuredBy } from '@nuvet/core/job';
import { printMm } from '@nuvet/core/length';
import { distance, type Point } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';

export const markWords: Record<Mark['kind'], string> = {
  'known-length': 'Known length',
  level: 'Level line',
  plumb: 'Plumb line',
  'right-angle': 'Right angle',
  frame: 'Frame',
  circle: 'Circle',
  box: 'Box',
  clearance: 'Clearance',
  'scale-card': 'Scale card',
  check: 'Distance',
  'check-angle': 'Angle',
  'check-radius': 'Radius',
  'check-along': 'Length along',
};

/** What is asked for, in the order of the mark's statements. */
export const statedWords: Partial<Record<Mark['kind'], readonly string[]>> = {
  'known-length': ['Its true length'],
  frame: ['Its true width', 'Its true height'],
  circle: ['Its true diameter'],
  box: ['Width it must have', 'Height it must have'],
  clearance: ['Ball or tool that must pass', 'Clearance around it'],
  'scale-card': ['Its check line measures'],
  check: ['Expected length (optional)'],
  'check-radius': ['Stated radius, if any'],
  'check-along': ['Expected length (optional)'],
};

/** The word beside a mark on the table. */
export function markReading(mark: Mark, fit: TrueUpFit, unit: Job['unit']): string {
  const stated = mark.stated.map((s) => s.text);
  switch (mark.kind) {
    case 'known-length':
      return stated[0] || 'length?';
    case 'frame':
    case 'box':
      return `${stated[0] || 'width?'} x ${stated[1] || 'height?'}`;
    case 'circle':
      return stated[0] ? `⌀ ${stated[0]}` : 'diameter?';
    case 'clearance':
      return stated[0] ? `takes ${stated[0]}` : 'takes?';
    case 'level':
    case 'plumb':
      return mark.kind;
    case 'right-angle':
      return '90°';
    case 'scale-card':
      return 'scale card';
    default:
      return measuredText(mark, fit, unit, true);
  }
}

/** What a check comes to; before the true size is known a distance is only so many pixels. */
export function measuredText(mark: Pick<Mark, 'kind' | 'points'>, fit: TrueUpFit, unit: Job['unit'], isShort = false): string {
  const measured = measuredBy(mark, fit);
  if (!measured) return '';
  if (measured.what === 'angle') return `${measured.value.toFixed(2)}°`;
  if (fit.model === 'unsized') return `${pixelsAlong(mark.points).toFixed(1)} px`;
  const length = unit === 'in' && isShort ? `${(measured.value / 25.4).toFixed(3)} in` : printMm(measured.value);
  return measured.what === 'radius' ? `R ${length}` : length;
}

const pixelsAlong = (points: readonly Point[]): number => points.slice(1).reduce((sum, p, k) => sum + distance(points[k] as Point, p), 0);
