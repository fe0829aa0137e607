/**
 * What the light table asks of the process that is open: what it draws over the outlines, and what of it can be dragged.
 */
import type { Piece } from '@nuvet/core/job';
import type { Box, Path, Point } from '@nuvet/core/plane';
import type { View } from './view';

/** What can be taken hold of: where it lies on the sheet. */
export interface Handle {
  readonly id: string;
  readonly at: Point;
  /** It is taken anywhere within; null is everywhere. Without one it is taken near by. */
  readonly box?: Box | null;
  /** It is taken anywhere inside this. */
  readonly outline?: Path;
}

/** What is dragged, and where it has come to. */
export type Dragged = Pick<Handle, 'id' | 'at'>;

export interface TableProcess {
  /** In screen pixels. */
  draw(canvas: CanvasRenderingContext2D, view: View, pieces: readonly Piece[]): void;
  readonly handles: readonly Handle[];
  /** It was clicked on, and not dragged. */
  click(handle: Handle): void;
  /** Takes it where it was dragged to. */
  drop(dragged: Dragged): void;
}
