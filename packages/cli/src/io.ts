/**
 * Where the command speaks, and where it finds itself as one file, to start threads of.
 */
export interface Io {
  /** A line of what was asked for. */
  out(line: string): void;
  /** A line about the work: progress, or why it failed. */
  error(line: string): void;
  /** Standard input, read until it ends or is longer than that. */
  input(mostBytes: number): Promise<Uint8Array>;
  /** A file to standard output. */
  bytes(bytes: Uint8Array): void;
  readonly bundle: string;
}

/** What a command comes to: lines of standard output, and the exit code. */
export interface Outcome {
  readonly lines: readonly string[];
  readonly code: 0 | 1 | 2;
}

export const done = (lines: readonly string[]): Outcome => ({ lines, code: 0 });
