import { defineConfig } from 'vitest/config';

/** Pages, servers, files and accidents that the program must bear; ends with a table of what became of them. */
export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts', 'test/hostile/table.ts'],
    setupFiles: ['test/support/seed.ts'],
    include: ['test/hostile/**/*.test.ts'],
    testTimeout: 300_000,
    hookTimeout: 180_000,
    maxWorkers: 2,
  },
});
