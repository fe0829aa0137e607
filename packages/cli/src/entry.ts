/**
 * Where the command begins: the process itself, or one of the threads that it starts for its work.
 */
import { fileURLToPath } from 'node:url';
import { isMainThread } from 'node:worker_threads';
import { main } from './main.ts';
import { serveTasks } from './tasks.ts';

if (isMainThread) {
  process.exitCode = await main(process.argv.slice(2), {
    out: (line) => process.stdout.write(`${line}\n`),
    error: (line) => process.stderr.write(`${line}\n`),
    input: async (mostBytes) => {
      const parts: Uint8Array[] = [];
      let length = 0;
      for await (const part of process.stdin) {
        parts.push(part as Uint8Array);
        length += (part as Uint8Array).length;
        if (length > mostBytes) break;
      }
      return Buffer.concat(parts);
    },
    bytes: (bytes) => process.stdout.write(bytes),
    bundle: fileURLToPath(import.meta.url),
  });
} else serveTasks();
