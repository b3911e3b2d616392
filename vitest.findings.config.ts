import { defineConfig } from 'vitest/config';

/** Every kind of finding on pages that have the fault and pages that have not; one after the other, because some are about time. */
export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts'],
    setupFiles: ['test/support/seed.ts'],
    include: ['test/findings/**/*.test.ts'],
    testTimeout: 600_000,
    maxWorkers: 1,
    fileParallelism: false,
  },
});
