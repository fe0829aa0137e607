import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['tests/e2e/**/*.test.ts'],
    globalSetup: ['tests/e2e/browser-folders.ts'],
    setupFiles: ['tests/unit/kept-scans.ts'],
    testTimeout: 600_000,
    hookTimeout: 240_000,
    // A machine that stands still at a bad moment is no fault of the page; what needed it is named at the end.
    retry: 1,
    // Browsers beside each other; each test makes the jobs that it needs.
    maxWorkers: availableParallelism(),
    // One module graph a worker: a file keeps nothing outside itself.
    isolate: false,
    expect: { poll: { timeout: 120_000, interval: 50 } },
  },
});
