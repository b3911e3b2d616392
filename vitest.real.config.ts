import { defineConfig } from 'vitest/config';

/** What runs on things that nobody here wrote: a content system with its database, photographs, real servers. */
export default defineConfig({
  test: {
    include: ['test/real/**/*.test.ts'],
    fileParallelism: false,
    testTimeout: 900_000,
    hookTimeout: 900_000,
  },
});
