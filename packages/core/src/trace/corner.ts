export interface Corner {
  readonly index: number;
  /** The change of direction, radians, positive to the left as the coordinates are (y down: to the right on screen). */
  readonly turn: number;
  /** Whether it turns sharply, but its sides meet so far out that it may as well be a narrow flat or round end. */
  readonly isUnresolved?: boolean;
}
