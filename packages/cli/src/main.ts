/**
 * In: the command's words. Out: the exit code: 0 done, 1 where a proof has findings, 2 something that the person can mend, said in
 * one line, 3 a fault of the command's own.
 */

import { processKinds, processNames } from '@nuvet/core/processes';
import { readBatchArguments, readTraceArguments, readTrueUpArguments, UsageError, usage } from './arguments.ts';
import type { Io, Outcome } from './io.ts';
import { make } from './make.ts';
import { makeUsage, proveUsage, readMakeArguments, readProveArguments } from './making-arguments.ts';
import { prove } from './prove.ts';
import { readSimulateArguments, simulate, simulateUsage } from './simulate.ts';
import { type Streamed, throughStreams } from './standard-streams.ts';
import { trace } from './trace.ts';
import { traceMany } from './trace-many.ts';
import { trueUp } from './true-up.ts';
import { version } from './version.ts';
import { wing, wingUsage } from './wing.ts';

const usages: Readonly<Record<string, string>> = { trace: usage, 'true-up': usage, prove: proveUsage, make: makeUsage, simulate: simulateUsage, wing: wingUsage }; // biome-ignore format: one line
const streamsUsage = `A dash stands for standard input in place of a file, and for standard output after --out (-.dxf names its kind).
nuvet VERB --help               the words of one command; nuvet --version`;

/** The words of one command, or of all. */
const helpOn = (verb = ''): string =>
  (Object.hasOwn(usages, verb) && usages[verb]) || `${[...new Set(Object.values(usages))].join('\n\n')}\n\n${streamsUsage}`;

/** What `--out -` is, where no kind is named: a picture of true-up, else outlines, or the first file of the process. */
function plainEnding(command: string, words: readonly string[]): string {
  if (command === 'true-up') return '.png';
  const process = processNames.find((name) => name === words[words.indexOf('--for') + 1]);
  const kind = command === 'make' && process ? processKinds[process] : undefined;
  return `.${(kind && Object.values(kind.files)[0]?.ending) ?? 'svg'}`;
}

export async function main(words: readonly string[], io: Io): Promise<number> {
  const [command, ...rest] = words;
  if (command === '--version') {
    io.out(`nuvet ${version}`);
    return 0;
  }
  if (command === undefined || command === '--help' || command === 'help' || rest.includes('--help')) {
    const say = command === undefined ? io.error : io.out;
    say(helpOn(command === 'help' ? rest[0] : command));
    return command === undefined ? 2 : 0;
  }
  let streamed: Streamed | null = null;
  try {
    streamed = await throughStreams(rest, plainEnding(command, rest), io);
    const { lines, code } = await outcomeOf(command, streamed.words, io);
    await streamed.finish();
    for (const line of lines) (streamed.isOutTaken ? io.error : io.out)(line);
    return code;
  } catch (error) {
    if (error instanceof UsageError) {
      io.error(`nuvet: ${oneLine(error.message)}`);
      return 2;
    }
    io.error(`nuvet: a fault of Nuvet’s own: ${oneLine(error instanceof Error ? error.message : String(error))}`);
    if (process.env.NUVET_TRACE && error instanceof Error && error.stack) io.error(error.stack);
    return 3;
  } finally {
    await streamed?.clean();
  }
}

const oneLine = (text: string): string => text.replace(/\s*\n\s*/g, ' ');

function outcomeOf(command: string, rest: readonly string[], io: Io): Promise<Outcome> {
  if (command === 'trace') {
    const batch = readBatchArguments(rest);
    return batch ? traceMany(batch, io) : trace(readTraceArguments(rest), io);
  }
  if (command === 'true-up') return trueUp(readTrueUpArguments(rest), io);
  if (command === 'prove') return prove(readProveArguments(rest), io);
  if (command === 'make') return make(readMakeArguments(rest), io);
  if (command === 'simulate') return simulate(readSimulateArguments(rest));
  if (command === 'wing') return wing(rest);
  throw new UsageError(`“${command}” is not a command; there are nuvet trace, true-up, prove, make, simulate and wing`);
}
