/**
 * Messages as what they say: a code, its parameters, and the English that these make. Another language, or another unit, makes
 * its own text of code and parameters.
 */
import { english } from './english.ts';

/** A parameter as it stands in a text: words and lengths as they were printed. */
export type Printed = string;

/** A length among the parameters, mm: printed in the unit that is asked for. */
export interface Length {
  readonly mm: number;
}

export type Parameter = string | number | boolean | Length;

/** What is said, apart from any language. */
export interface Said {
  readonly code: string;
  readonly parameters: readonly Parameter[];
}

/** Said in English, lengths in millimetres. */
export interface Message {
  readonly message: string;
  readonly said: Said;
}

/** An error that a person caused and can read. */
export class SaidError extends Error {
  readonly said: Said;

  constructor({ message, said }: Message) {
    super(message);
    this.said = said;
  }
}

/** The texts of one language: of the shape of `english`. */
export type Texts = typeof english;

type Filled<P extends readonly unknown[]> = { readonly [K in keyof P]: P[K] extends string ? string | Length : P[K] };
type Saying<T> = T extends (...parameters: infer P extends readonly Parameter[]) => string
  ? (...parameters: Filled<P>) => Message
  : () => Message;
type Sayings = { readonly [A in keyof Texts]: { readonly [K in keyof Texts[A]]: Saying<Texts[A][K]> } };

export const length = (mm: number): Length => ({ mm });

/** Lengths as messages say them: whole millimetres where they are, else hundredths, thousandths where they are small. */
export const printLength = (mm: number): string => `${Number.isInteger(mm) ? mm : mm < 0.1 ? mm.toFixed(3) : mm.toFixed(2)} mm`;

/**
 * What was said, in the words of a language.
 * @param print a length in mm as it is to stand there
 */
export function inWords({ code, parameters }: Said, texts: Texts = english, print = printLength): string {
  const [area, key] = code.split('.') as [keyof Texts, string];
  const text = (texts[area] as Record<string, string | ((...printed: unknown[]) => string)>)[key];
  if (text === undefined) throw new RangeError(`no message has the code ${code}`);
  return typeof text === 'string' ? text : text(...parameters.map((p) => (typeof p === 'object' ? print(p.mm) : p)));
}

function saying(code: string): (...parameters: Parameter[]) => Message {
  return (...parameters) => ({ message: inWords({ code, parameters }), said: { code, parameters } });
}

/** What can be said: `say.findings.open(name, length(0.4))`. */
export const say = Object.fromEntries(
  Object.entries(english).map(([area, texts]) => [
    area,
    Object.fromEntries(Object.keys(texts).map((key) => [key, saying(`${area}.${key}`)])),
  ]),
) as unknown as Sayings;
