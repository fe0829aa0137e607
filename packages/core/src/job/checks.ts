/**
 * In: a mark and its picture's fit. Out: what the mark measures on the sheet.
 */
import { distance, type Point } from '../plane/point.ts';
import { project } from '../plane/projection.ts';
import { centreOfRim, cornerAngle, type TrueUpFit } from '../trueup/index.ts';
import type { Mark } from './schema.ts';

export interface Measured {
  readonly what: 'length' | 'angle' | 'radius';
  /** In mm, or in degrees for an angle. */
  readonly value: number;
}

/** Null for marks that measure nothing by themselves, such as a box. */
export function measuredBy({ kind, points }: Pick<Mark, 'kind' | 'points'>, fit: TrueUpFit): Measured | null {
  const p = points.map((q) => project(fit.projection, q));
  switch (kind) {
    case 'check':
    case 'known-length':
    case 'clearance':
      return { what: 'length', value: distance(p[0] as Point, p[1] as Point) };
    case 'check-along':
      return { what: 'length', value: p.slice(1).reduce((sum, q, k) => sum + distance(p[k] as Point, q), 0) };
    case 'check-angle':
    case 'right-angle':
      return { what: 'angle', value: (cornerAngle(p as unknown as [Point, Point, Point]) * 180) / Math.PI };
    case 'check-radius':
    case 'circle':
      return { what: 'radius', value: centreOfRim(p).radius };
    default:
      return null;
  }
}
