/**
 * The thread's own side: takes one task, answers, and is let go.
 */
import { parentPort } from 'node:worker_threads';
import { type Task, tasks } from './tasks.ts';

parentPort?.once('message', async ({ task, input }: { task: Task; input: never }) => {
  try {
    parentPort?.postMessage({ output: await tasks[task](input) });
  } catch (error) {
    parentPort?.postMessage({ message: error instanceof Error ? error.message : String(error) });
  }
});
