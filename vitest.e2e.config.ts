import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['tests/e2e/**/*.test.ts'],
    globalSetup: ['tests/e2e/browser-folders.ts'],
    setupFiles: ['tests/unit/kept-scans.ts'],
    testTimeout: 180_000,
    hookTimeout: 60_000,
    // Browsers beside each other; each test makes the jobs that it needs.
    maxWorkers: availableParallelism(),
    // One module graph a worker: a file keeps nothing outside itself.
    isolate: false,
    expect: { poll: { timeout: 20_000, interval: 50 } },
  },
});
