/**
 * Work done in a thread of its own: what comes from outside is read there, bounded in time and memory, so that no file can hold or
 * fill the command; and pictures are traced there over all cores. The types of a task are those of the function that does it.
 */
import { Worker } from 'node:worker_threads';
import { UsageError } from './arguments.ts';

// biome-ignore lint/suspicious/noExplicitAny: any function of one input is a task's
type Work = (input: any) => unknown;
type Done<T extends Work> = Awaited<ReturnType<T>>;
type Answer<O> = { output: O } | { fault: string; isUsage: boolean } | { hasBegun: true };

/** Reading may take this much of a thread's heap; what it hands over is counted once more. */
const maxHeapMb = 320;

/** A thread that takes one task after the other. */
export class TaskThread {
  private readonly worker: Worker;

  constructor(bundle: string) {
    this.worker = new Worker(bundle, {
      resourceLimits: { maxOldGenerationSizeMb: maxHeapMb, maxYoungGenerationSizeMb: 32, stackSizeMb: 4 },
    });
    // What fails after it was given up concerns nobody any more.
    this.worker.on('error', () => {});
  }

  /**
   * @param limitS seconds that it may take; null for no limit
   * @param tooMuch what is said where it takes more than is allowed
   * @throws UsageError where a person can mend it
   */
  run<T extends Work>(task: string, input: Parameters<T>[0], limitS: number | null, tooMuch: string): Promise<Done<T>> {
    return new Promise((resolve, reject) => {
      let timer: NodeJS.Timeout | null = null;
      // Only these are taken off again: without the worker's own listeners its port would hear nothing more.
      const heard = {
        message: (answer: Answer<Done<T>>) => {
          // The clock starts with the task: how long a thread takes to start is the machine's affair.
          if ('hasBegun' in answer) {
            if (limitS !== null) timer = setTimeout(() => settle(() => reject(new UsageError(tooMuch))), limitS * 1000);
            return;
          }
          settle(() => {
            if ('output' in answer) resolve(answer.output);
            else reject(answer.isUsage ? new UsageError(answer.fault) : new Error(answer.fault));
          });
        },
        // The heap's limit is told as an error.
        error: (error: NodeJS.ErrnoException) =>
          settle(() => reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new UsageError(tooMuch) : error)),
        exit: () => settle(() => reject(new UsageError(tooMuch))),
      };
      const settle = (work: () => void) => {
        if (timer) clearTimeout(timer);
        for (const [event, hear] of Object.entries(heard)) this.worker.off(event, hear);
        work();
      };
      for (const [event, hear] of Object.entries(heard)) this.worker.on(event, hear);
      this.worker.postMessage({ task, input });
    });
  }

  async end(): Promise<void> {
    await this.worker.terminate();
  }
}

/** One task in a thread that ends with it. */
export async function inThread<T extends Work>(
  bundle: string,
  task: string,
  input: Parameters<T>[0],
  limitS: number | null,
  tooMuch: string,
): Promise<Done<T>> {
  const thread = new TaskThread(bundle);
  try {
    return await thread.run<T>(task, input, limitS, tooMuch);
  } finally {
    await thread.end();
  }
}
