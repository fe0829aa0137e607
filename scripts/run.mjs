// Running other programs: with their output shown, or kept and returned.
import { spawn } from 'node:child_process';

export class RunError extends Error {}

/**
 * Runs a program to its end. `quiet` keeps its output for the error message only.
 * @returns {Promise<string>} what it printed on standard output, when quiet
 */
export function run(program, words, { quiet = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, words, { stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'], ...options });
    let [out, error] = ['', ''];
    child.stdout?.on('data', (part) => {
      out += part;
    });
    child.stderr?.on('data', (part) => {
      error += part;
    });
    child.on('error', (failure) => reject(new RunError(`${program}: ${failure.message}`)));
    child.on('close', (code, signal) => {
      if (code === 0) resolve(out);
      else reject(new RunError(`${program} ${words.join(' ')} ended with ${signal ?? code}\n${error || out}`.trim()));
    });
  });
}

/** Whether a program runs and ends well. */
export const succeeds = (program, words, options) =>
  run(program, words, { quiet: true, ...options }).then(
    () => true,
    () => false,
  );

export const say = (text) => console.log(`· ${text}`);

/** Says what went wrong, plainly, and ends with code 1. */
export function fail(error) {
  console.error(`\n${error instanceof Error && !(error instanceof RunError) && error.stack ? error.stack : (error?.message ?? error)}`);
  process.exit(1);
}
