/** What a connection of the service works on: a flat cutter's sheet, or a mill's stock. */

/** What a line of the program asks for beyond a move. */
export type Asked =
  /** The program ends. */
  | { readonly kind: 'end' }
  /** Somebody has to do something once the machine stands, a change of tool, say; it then waits. */
  | { readonly kind: 'prompt'; readonly text: string }
  /** The next lines depend on where the machine comes to a stand. */
  | { readonly kind: 'stand' }
  /** A wait, seconds. */
  | { readonly kind: 'wait'; readonly seconds: number };

export interface Work {
  readonly isIdle: boolean;
  readonly hasRoom: boolean;
  /** What has gone wrong on the way; null for nothing. */
  readonly fault: string | null;
  /** @throws Refused with why a line cannot be obeyed */
  read(line: string): Asked | null;
  /** The machine has come to the stand that was asked for. @returns what is told of it, if anything */
  stands(): string | null;
  pass(seconds: number): void;
  /** Slows down; whether it stands. */
  slow(seconds: number): boolean;
  /** Stands, and forgets the program. */
  stop(): void;
  state(): object;
  /** Stretches cut so far, from the one numbered. */
  stretches(from: number): readonly { readonly line: number; readonly points: readonly { readonly x: number; readonly y: number }[] }[];
  /** Words that only this kind of work knows; the answer. @throws Refused */
  command(name: string, words: string): string | null;
}
