/**
 * In: a task. Out: its answer, worked out in a thread of its own, which is ended when it takes too long. The thread's program is
 * bundled when the application is built.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { words } from '../../words/index.ts';
import type { Task, TaskInput, TaskOutput } from './tasks.ts';

/** The server runs in its own folder; scripts and tests in the project's. */
const programs = ['.threads/server.worker.mjs', 'apps/web/.threads/server.worker.mjs'];

function program(): string {
  const found = programs.map((name) => join(/* turbopackIgnore: true */ process.cwd(), name)).find((file) => existsSync(file));
  if (!found) throw new Error('The threads of the server are not built; `npm run demo` builds them.');
  return found;
}

export class ThreadError extends Error {}

/**
 * @param deadlineMs after so long the thread is ended
 * @throws ThreadError with what the task said, or that it took too long
 */
export function inThread<T extends Task>(task: T, input: TaskInput<T>, deadlineMs: number): Promise<TaskOutput<T>> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(/* turbopackIgnore: true */ program(), { resourceLimits: { maxOldGenerationSizeMb: 1024 } });
    let timer: NodeJS.Timeout | undefined;
    // Counted from when the thread runs: a busy machine is no fault of the task.
    worker.once('online', () => {
      timer = setTimeout(() => end(() => reject(new ThreadError(words.server.thisTakesTooLong))), deadlineMs);
    });
    const end = (settle: () => void) => {
      clearTimeout(timer);
      settle();
      void worker.terminate();
    };
    worker.once('message', (answer: { output: TaskOutput<T> } | { message: string }) =>
      end(() => ('output' in answer ? resolve(answer.output) : reject(new ThreadError(answer.message)))),
    );
    worker.on('error', (error: Error) => end(() => reject(new ThreadError(error.message))));
    worker.once('exit', () => end(() => reject(new ThreadError(words.server.theWorkWasBrokenOff))));
    worker.postMessage({ task, input });
  });
}
