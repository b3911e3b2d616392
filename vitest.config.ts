import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    setupFiles: ['test/support/seed.ts'],
    include: ['test/**/*.test.ts'],
    // Browsers are many processes each; two files at a time is what a small machine carries.
    maxWorkers: 2,
    // What is waited for is other processes on a machine that may be busy; no test measures speed by it.
    testTimeout: 180_000,
    hookTimeout: 180_000,
  },
});
