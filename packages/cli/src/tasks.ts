/** The thread's side of work done in a thread: what it can be asked for. */
import { parentPort } from 'node:worker_threads';
import { UsageError } from './arguments.ts';
import { readJobFile } from './job-file.ts';
import { renderPdfPage } from './pdf.ts';
import { traceOne } from './trace-many.ts';

const tasks = {
  /** A job's document or a drawing file to a job and its findings. */
  job: readJobFile,
  /** A page of a PDF to a PNG. */
  pdf: renderPdfPage,
  /** A picture to outlines in files. */
  trace: traceOne,
} as const;

/** The thread's own side. */
export function serveTasks(): void {
  const port = parentPort;
  port?.on('message', async ({ task, input }: { task: keyof typeof tasks; input: never }) => {
    port.postMessage({ hasBegun: true });
    try {
      port.postMessage({ output: await tasks[task](input) });
    } catch (error) {
      port.postMessage({ fault: error instanceof Error ? error.message : String(error), isUsage: error instanceof UsageError });
    }
  });
}
