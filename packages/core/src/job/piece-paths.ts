/** In: a piece. Out: its outlines in a row, the outer one first. */
import type { Path } from '../plane/path.ts';

export const pathsOf = ({ outer, holes }: { readonly outer: Path; readonly holes: readonly Path[] }): Path[] => [outer, ...holes];
