/** The middle one of some numbers in order, of an even count the upper one; 0 of none. */
export const median = (values: readonly number[]): number => values.toSorted((a, b) => a - b)[values.length >> 1] ?? 0;
