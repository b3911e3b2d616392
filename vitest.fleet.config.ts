import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/**
 * Workspaces on a server: PostgreSQL as Debian has it, started by the tests themselves. What holds for a workspace in a
 * folder is held for one on a server by the same tests.
 */
export default defineConfig({
  test: {
    include: [
      'test/fleet/**/*.test.ts',
      'test/store/{workspace,alarms,encodes,keep-pages,many-rows,sessions,visit-order}.test.ts',
    ],
    // The thread that talks to the server is started from what was built.
    alias: [
      {
        find: /^.*\/src\/store\/(workspace|postgres\/.*)\.js$/,
        replacement: `${fileURLToPath(new URL('dist/src/store', import.meta.url))}/$1.js`,
      },
    ],
    globalSetup: ['test/fleet/global.ts'],
    // Half of what they take is waiting: for a server that crashed, for connections that are lost, for packages.
    maxWorkers: 2,
    testTimeout: 300_000,
    hookTimeout: 180_000,
  },
});
