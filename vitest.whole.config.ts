import { defineConfig } from 'vitest/config';
import { BaseSequencer } from 'vitest/node';
import type { TestSpecification } from 'vitest/node';

/** Tests that wait for the demo, which is under way while the others run. */
const waiting = /\/(?:demo|demo-weeks|deploy|museum|package)\.test\.ts$/;

class WaitingLast extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const waits = ({ moduleId }: TestSpecification) => Number(waiting.test(moduleId));
    return sorted.sort((a, b) => waits(a) - waits(b));
  }
}

/** What takes minutes and is not part of `npm test`: whole stories, on the demo's site and on many sites made for it. */
export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts', 'test/support/early-demo.ts'],
    setupFiles: ['test/support/seed.ts'],
    include: ['test/whole/**/*.test.ts'],
    testTimeout: 180_000,
    hookTimeout: 400_000,
    maxWorkers: 3,
    sequence: { sequencer: WaitingLast },
  },
});
