/**
 * In: what a person marks on a picture, in its pixels (x right, y down, a pixel's centre at +0.5).
 */
import type { Point } from '../plane/point.ts';

/** Two marks and the real distance between them. */
export interface KnownLength {
  readonly kind: 'known-length';
  readonly id: string;
  readonly a: Point;
  readonly b: Point;
  readonly mm: number;
}

/** Two marks that must come out horizontal (level) or vertical (plumb). */
export interface DirectionLine {
  readonly kind: 'level' | 'plumb';
  readonly id: string;
  readonly a: Point;
  readonly b: Point;
}

export type TrueUpMark = KnownLength | DirectionLine;

export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}
