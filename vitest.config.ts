import { defineConfig } from 'vitest/config';

/** Tests that start no browser. */
const unit = ['test/{core,crawl,images,output,reach,replay,store,tasks,cli,texts}/**/*.test.ts'];

const common = {
  setupFiles: ['test/support/seed.ts'],
  // What is waited for is other processes on a machine that may be busy; no test measures speed by it.
  testTimeout: 180_000,
  hookTimeout: 180_000,
};

export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts'],
    maxWorkers: 2,
    coverage: {
      provider: 'v8',
      include: ['src/core/**'],
      reporter: ['text-summary', 'html'],
      thresholds: { lines: 90, statements: 90, functions: 90 },
    },
    projects: [
      {
        test: {
          ...common,
          name: 'unit',
          include: unit,
          // They change nothing that another file could see, so a worker loads each module once for all of them.
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          ...common,
          name: 'browser',
          include: ['test/**/*.test.ts'],
          exclude: [...unit, 'test/{real,whole,clock,findings,fleet,hostile}/**'],
          // They wait as much as they compute: one more than there are cores keeps a small machine busy.
          maxWorkers: 3,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
});
