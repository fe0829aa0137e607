export interface Corner {
  readonly index: number;
  /** The change of direction, radians, positive to the left as the coordinates are (y down: to the right on screen). */
  readonly turn: number;
}
