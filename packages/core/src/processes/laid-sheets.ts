/** What a process cuts its parts from, laid out: each sheet with its parts, and what is left of it; plain data. */
import type { Path } from '../plane/index.ts';

export interface LaidPart {
  readonly name: string;
  /** Where it lies on the sheet. */
  readonly outer: Path;
  readonly holes: readonly Path[];
}

export interface LaidSheet {
  readonly thicknessMm: number;
  /** How many sheets are cut alike, to be laminated to one. */
  readonly layers: number;
  /** Which of the sheets at hand it is, by its place among them; null for one of the stock. */
  readonly kind: number | null;
  /** The lower left corner of its box is the origin. */
  readonly outline: Path;
  readonly parts: readonly LaidPart[];
  readonly leftovers: readonly Path[];
}

/** Sheets, and the names of parts that none of them takes. */
export interface LaidOut {
  readonly sheets: readonly LaidSheet[];
  readonly unplaced: readonly string[];
}
