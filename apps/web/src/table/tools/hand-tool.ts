/**
 * What draws and corrects by hand: it answers presses, moves, releases and keys, each with whether it has taken them. Places are screen
 * pixels of the table.
 */
import type { Job, Piece } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import type { SheetSnap } from '@nuvet/core/shape';
import type { JobState } from '@/job/job-store';
import { toSheet, type View } from '../view';
import type { Keys } from './tool';

/** A thing, a point or a handle is taken from this near, screen pixels. */
const pickPx = 11;
/** A press that moves less than this is a click, screen pixels. */
export const slackPx = 4;

export interface HandSurroundings {
  readonly job: Job;
  readonly run: JobState['run'];
  readonly pieces: readonly Piece[];
  view(): View;
  /** A feature of the picture near the pointer, mm on the sheet. */
  pictureSnap(): SheetSnap | null;
  lookForSnap(screen: Point): void;
  onMessage(text: string): void;
}

export interface TimedKeys extends Keys {
  readonly timeStamp: number;
}

export interface HandTool {
  down(screen: Point, event: TimedKeys): boolean;
  /** While it holds a press. */
  drag(screen: Point, event: Keys): boolean;
  /** With nothing pressed. */
  hover(screen: Point, event: Keys): void;
  up(screen: Point, event: TimedKeys): boolean;
  key(event: Keys & { readonly key: string }): boolean;
  doubleClick(screen: Point): boolean;
}

export const onSheet = ({ view }: Pick<HandSurroundings, 'view'>, screen: Point): Point => toSheet(view(), screen);
/** How near counts, mm on the sheet. */
export const reachOf = ({ view }: Pick<HandSurroundings, 'view'>): number => pickPx / view().scale;
