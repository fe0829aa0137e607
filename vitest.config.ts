import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const alias = { '@': fileURLToPath(new URL('apps/web/src', import.meta.url)) };
const setupFiles = ['tests/unit/random-laws.ts', 'tests/unit/kept-scans.ts'];
/** The command changes folders, which only a process of its own may. */
const ofCommand = ['packages/cli/**/*.test.ts'];
/** What needs the database that `npm test` starts. */
const ofServer = ['tests/server/**/*.test.ts'];

export default defineConfig({
  resolve: { alias },
  test: {
    testTimeout: 180_000,
    hookTimeout: 120_000,
    // The main thread only hands out work.
    maxWorkers: availableParallelism(),
    projects: [
      {
        resolve: { alias },
        // What Next makes of JSX when the application is built.
        oxc: { jsx: { runtime: 'automatic' } },
        test: {
          name: 'pure',
          include: ['packages/**/*.test.ts', 'apps/**/*.test.ts', 'tests/unit/**/*.test.ts'],
          exclude: [...ofCommand, '**/node_modules/**', '**/.next/**'],
          setupFiles,
          testTimeout: 180_000,
          hookTimeout: 120_000,
          // One module graph a thread: what is tested here keeps nothing between calls but what it may.
          pool: 'threads',
          isolate: false,
        },
      },
      { resolve: { alias }, test: { name: 'command', include: ofCommand, setupFiles, testTimeout: 180_000, pool: 'forks' } },
      {
        resolve: { alias },
        test: {
          name: 'server',
          include: process.env.NUVET_EMPTY_DATABASE ? ofServer : [],
          setupFiles,
          testTimeout: 180_000,
          hookTimeout: 120_000,
          pool: 'forks',
          // A machine that stands still runs into the server's own bounds of time; what needed a second try is named at the end.
          retry: 1,
        },
      },
    ],
  },
});
