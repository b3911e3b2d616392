import { defineConfig } from 'vitest/config';
import { BaseSequencer } from 'vitest/node';
import type { TestSpecification } from 'vitest/node';

/** Tests that wait for the demo, which is under way while the others run. */
const waiting = /\/(?:demo|demo-weeks|deploy|museum|package)\.test\.ts$/;

/**
 * They come before the last quarter of the others: the demo is done by then, or soon, and what they wait for besides (lines
 * that are as slow as real ones) leaves the processors to the rest.
 */
class WaitingLate extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const waits = ({ moduleId }: TestSpecification) => waiting.test(moduleId);
    const others = sorted.filter((file) => !waits(file));
    const late = Math.ceil(others.length * 0.75);
    return [...others.slice(0, late), ...sorted.filter(waits), ...others.slice(late)];
  }
}

/** What takes minutes and is not part of `npm test`: whole stories, on the demo's site and on many sites made for it. */
export default defineConfig({
  test: {
    globalSetup: ['test/support/global.ts', 'test/support/early-demo.ts'],
    setupFiles: ['test/support/seed.ts'],
    include: ['test/whole/**/*.test.ts'],
    testTimeout: 180_000,
    hookTimeout: 900_000,
    maxWorkers: 3,
    sequence: { sequencer: WaitingLate },
  },
});
