/**
 * In: the command's words. Out: the exit code: 0 done, 2 something that the person can mend, said in one line.
 */
import { readArguments, UsageError, usage } from './arguments.ts';
import { trace } from './trace.ts';

export async function main(words: readonly string[]): Promise<number> {
  const [command, ...rest] = words;
  if (command === undefined || command === '--help' || command === 'help' || rest.includes('--help')) {
    console.log(usage);
    return command === undefined ? 2 : 0;
  }
  try {
    if (command !== 'trace') throw new UsageError(`“${command}” is not a command; there is: nuvet trace PICTURE --out FILE`);
    for (const line of await trace(readArguments(rest))) console.log(line);
    return 0;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    console.error(`nuvet: ${error.message.replace(/\s*\n\s*/g, ' ')}`);
    return 2;
  }
}
