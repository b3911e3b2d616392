import { defineConfig } from 'vitest/config';

/** Tests that measure time: nothing may run beside them. */
const timed = ['test/clock/{cold-load,slow-connections,clock-timing,clock-film}.test.ts'];

const common = {
  setupFiles: ['test/support/seed.ts'],
  testTimeout: 180_000,
  hookTimeout: 180_000,
};

/** What loads pages to time and compare them, and is not part of `npm test`: timing takes its time. */
export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts'],
    projects: [
      {
        test: {
          ...common,
          name: 'loads',
          include: ['test/clock/**/*.test.ts'],
          exclude: timed,
          maxWorkers: 2,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          ...common,
          name: 'timed',
          include: timed,
          fileParallelism: false,
          maxWorkers: 1,
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
});
