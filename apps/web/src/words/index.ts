/**
 * Every word of the interface. `english` sets the shape: another language is a second folder of that shape, chosen here.
 */
import { english } from './english/index.ts';

export type Words = typeof english;

export const words: Words = english;
