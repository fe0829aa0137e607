/**
 * Messages as what they say: a code, its parameters, and the English that these make. Another language, or another unit, makes
 * its own text of code and parameters.
 */
import { english } from './english.ts';

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

/** A text of a language, or what makes it of its parameters. */
type Text = string | ((...printed: never[]) => string);
/** The texts of one language, by what they are about; what the proof finds is said beside its checks (see `findingWords`). */
export type Texts = typeof english & { readonly findings?: Readonly<Record<string, Text>> };

type Filled<P extends readonly unknown[]> = { readonly [K in keyof P]: P[K] extends string ? string | Length : P[K] };
type Saying<T> = T extends (...parameters: infer P extends readonly Parameter[]) => string
  ? (...parameters: Filled<P>) => Message
  : () => Message;
type Sayings<T> = { readonly [K in keyof T]: Saying<T[K]> };

export const length = (mm: number): Length => ({ mm });

/** Lengths as messages say them: whole millimetres where they are, else hundredths, thousandths where they are small. */
export const printLength = (mm: number): string => `${Number.isInteger(mm) ? mm : mm < 0.1 ? mm.toFixed(3) : mm.toFixed(2)} mm`;

/**
 * What was said, in the words of a language.
 * @param print a length in mm as it is to stand there
 */
export function inWords({ code, parameters }: Said, texts: Texts = english, print = printLength): string {
  const [area, key] = code.split('.') as [keyof Texts, string];
  const text = (texts[area] as Readonly<Record<string, Text>> | undefined)?.[key];
  if (text === undefined) throw new RangeError(`no message has the code ${code}`);
  return filled(text, parameters, print);
}

const filled = (text: Text, parameters: readonly Parameter[], print: (mm: number) => string): string =>
  typeof text === 'string' ? text : text(...(parameters.map((p) => (typeof p === 'object' ? print(p.mm) : p)) as never[]));

/** What can be said by texts of an area: `sayings('findings', { open: ... }).open(name, length(0.4))`. */
export const sayings = <T extends Readonly<Record<string, Text>>>(area: string, texts: T): Sayings<T> =>
  Object.fromEntries(
    Object.entries(texts).map(([key, text]) => [
      key,
      (...parameters: Parameter[]): Message => ({
        message: filled(text, parameters, printLength),
        said: { code: `${area}.${key}`, parameters },
      }),
    ]),
  ) as unknown as Sayings<T>;

/** What the core says of all but findings: `say.make.kerfFails(name)`. */
export const say = Object.fromEntries(Object.entries(english).map(([area, texts]) => [area, sayings(area, texts)])) as unknown as {
  readonly [A in keyof typeof english]: Sayings<(typeof english)[A]>;
};
