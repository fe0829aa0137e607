/** In: a piece. Out: its outlines in a row, the outer one first. */
import type { Path } from '../plane/path.ts';
import type { Piece } from './schema.ts';

export const pathsOf = ({ outer, holes }: Pick<Piece, 'outer' | 'holes'>): Path[] => [outer, ...holes];
