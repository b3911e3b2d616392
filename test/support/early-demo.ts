import type { TestProject } from 'vitest/node';
import { startDemo } from './shared-demo.js';

/**
 * Starts the demo that several test files share when all of them are going to be run: by the time they need it, it is
 * done. For a few files it is started by the first that asks.
 */
export default function startEarly({ vitest }: TestProject): (() => void) | undefined {
  if (vitest.filenamePattern?.length) return undefined;
  return startDemo()?.stop;
}
