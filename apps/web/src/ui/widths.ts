/**
 * How wide windows are told apart: where stages fold to numbers and the docket can be drawn aside, and where it has two columns.
 */
export const narrow = '@media (max-width: 999px)';
export const wide = '@media (min-width: 1840px)';
/** A finger in place of a mouse. */
export const touch = '@media (pointer: coarse)';
