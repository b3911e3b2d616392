import { defineConfig } from 'vitest/config';

/** Tests that start no browser. */
const unit = ['test/{core,crawl,images,output,store,cli}/**/*.test.ts'];

/** Tests that measure time, or work with what was measured: nothing may run beside them. */
const timed = [
  'test/browser/{cold-load,slow-connections,phases}.test.ts',
  'test/program/clock*.test.ts',
];

const common = {
  setupFiles: ['test/support/seed.ts'],
  // What is waited for is other processes on a machine that may be busy; no test measures speed by it.
  testTimeout: 180_000,
  hookTimeout: 180_000,
};

export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts'],
    // Browsers are many processes each; two files at a time is what a small machine carries.
    maxWorkers: 2,
    projects: [
      { test: { ...common, name: 'unit', include: unit, sequence: { groupOrder: 1 } } },
      {
        test: {
          ...common,
          name: 'browser',
          include: ['test/**/*.test.ts'],
          exclude: [...unit, ...timed],
          sequence: { groupOrder: 2 },
        },
      },
      {
        test: {
          ...common,
          name: 'timed',
          include: timed,
          fileParallelism: false,
          maxWorkers: 1,
          sequence: { groupOrder: 3 },
        },
      },
    ],
  },
});
