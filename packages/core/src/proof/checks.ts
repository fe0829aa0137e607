/** The table of checks of outlines, in the order in which they look. One entry is all that a new one needs. */
import { crossingCheck } from './crossing.ts';
import { doubledCheck } from './doubled.ts';
import { endCheck } from './ends.ts';
import { narrowCheck } from './narrow-faults.ts';
import { nestingCheck } from './nesting.ts';
import { needlessPointCheck, sliverCheck } from './slivers.ts';
import { toolCornerCheck } from './tool-corners.ts';

export const checks = [
  crossingCheck,
  sliverCheck,
  doubledCheck,
  needlessPointCheck,
  nestingCheck,
  narrowCheck,
  toolCornerCheck,
  endCheck,
] as const;

type KindsOf<C> = C extends { readonly kinds: infer K } ? keyof K : never;
export type FaultCode = KindsOf<(typeof checks)[number]> & string;
export const faultCodes = checks.flatMap(({ kinds }) => Object.keys(kinds)) as FaultCode[];

type WordsOf<C> = C extends { readonly words: infer W } ? W : never;
type Together<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer A) => void ? A : never;
/** What all checks say, for another language to say, too. */
export const checkWords: Together<WordsOf<(typeof checks)[number]>> = Object.assign({}, ...checks.map(({ words }) => words));
