import type { Printed } from './printed.ts';

/** “a hole”, “3 holes”. */
export const several = (count: number, one: string, more: string): string => (count === 1 ? one : `${count} ${more}`);
export const places = (count: number): string => (count === 1 ? 'at one place' : `at ${count} places`);
/** “Piece 1 is”, “3 pieces (Piece 1, Piece 2, …) are”. */
export const are = (names: Printed, count: number): string => (count === 1 ? `${names} is` : `${count} pieces (${names}) are`);
