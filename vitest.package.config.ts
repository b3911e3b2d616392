import { defineConfig } from 'vitest/config';

/** What takes minutes and is not part of `npm test`: the package, installed elsewhere, and the worked examples. */
export default defineConfig({
  test: {
    include: ['test/package/**/*.test.ts'],
    fileParallelism: false,
    testTimeout: 600_000,
    hookTimeout: 600_000,
  },
});
