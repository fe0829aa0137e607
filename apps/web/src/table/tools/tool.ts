/**
 * What a tool of the light table is: it answers presses, moves, releases and keys, each with whether it has taken them. Places are
 * screen pixels of the table.
 */
import type { Job, Picture, Piece } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import type { JobState } from '@/job/job-store';
import type { Coordinates } from '../coordinates';
import type { View } from '../view';

/** A press that moves less than this is a click, screen pixels. */
export const clickSlack = 4;
/** A mark's point, or a piece, is picked up from this near, screen pixels. */
export const pickReach = 13;

/** What tools work on. */
export interface Surroundings {
  readonly job: Job;
  readonly run: JobState['run'];
  readonly picture: Picture | null;
  readonly stage: string;
  readonly pieces: readonly Piece[];
  view(): View;
  /** Of the picture at hand; null where there is none. */
  coordinates(): Coordinates | null;
  /** Looks for the picture's own feature near a place. */
  lookForSnap(at: Point): void;
  /** The place of the picture that is meant by one on the screen, pixels of the original. */
  placeAt(at: Point, ignoresSnapping: boolean): Point | null;
  onMessage(text: string): void;
}

/** What of an event tools look at. */
export interface Keys {
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}
export interface KeyPress extends Keys {
  readonly key: string;
}

export interface TableTool {
  /** A press with one finger or the main button: taken, all until its release is the tool's. */
  down?(at: Point): boolean;
  drag?(at: Point, last: Point, keys: Keys): void;
  /** @param wasClick whether it has not moved since it was pressed */
  up?(wasClick: boolean): void;
  /** A press that was not taken, and has not moved. */
  click?(at: Point, keys: Keys): boolean;
  /** The pointer moves with nothing pressed. */
  hover?(at: Point): void;
  key?(press: KeyPress): boolean;
  /** The system has taken the press away: nothing has moved. */
  cancel?(): void;
}

export const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
