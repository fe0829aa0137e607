/**
 * In: the command's words. Out: the exit code: 0 done, 1 where a proof has findings, 2 something that the person can mend, said in
 * one line.
 */
import { readBatchArguments, readTraceArguments, readTrueUpArguments, UsageError, usage } from './arguments.ts';
import { make } from './make.ts';
import { makingUsage, readMakeArguments, readProveArguments } from './making-arguments.ts';
import { prove } from './prove.ts';
import { trace } from './trace.ts';
import { traceMany } from './trace-many.ts';
import { trueUp } from './true-up.ts';

export async function main(words: readonly string[]): Promise<number> {
  const [command, ...rest] = words;
  if (command === undefined || command === '--help' || command === 'help' || rest.includes('--help')) {
    console.log(`${usage}\n\n${makingUsage}`);
    return command === undefined ? 2 : 0;
  }
  try {
    for (const line of await done(command, rest)) console.log(line);
    return Number(process.exitCode ?? 0);
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    console.error(`nuvet: ${error.message.replace(/\s*\n\s*/g, ' ')}`);
    return 2;
  }
}

function done(command: string, rest: readonly string[]): Promise<string[]> {
  if (command === 'trace') {
    const batch = readBatchArguments(rest);
    return batch ? traceMany(batch) : trace(readTraceArguments(rest));
  }
  if (command === 'true-up') return trueUp(readTrueUpArguments(rest));
  if (command === 'prove') return prove(readProveArguments(rest));
  if (command === 'make') return make(readMakeArguments(rest));
  throw new UsageError(`“${command}” is not a command; there are nuvet trace, true-up, prove and make`);
}
