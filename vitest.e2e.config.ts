import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['tests/e2e/**/*.test.ts'],
    globalSetup: ['tests/e2e/browser-folders.ts'],
    setupFiles: ['tests/unit/kept-scans.ts'],
    testTimeout: 180_000,
    hookTimeout: 60_000,
    // Two browsers beside each other; each test makes the jobs that it needs.
    maxWorkers: 2,
    expect: { poll: { timeout: 20_000, interval: 50 } },
  },
});
