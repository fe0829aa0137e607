export { english } from './english.ts';
export type { FixWord } from './fixes.ts';
export type { Printed } from './printed.ts';
export { inWords, type Length, length, type Message, printLength, type Said, SaidError, say, sayings, type Texts } from './said.ts';
