export { english } from './english.ts';
export type { MendWord } from './findings.ts';
export { inWords, type Length, length, type Message, printLength, type Said, SaidError, say, type Texts } from './said.ts';
