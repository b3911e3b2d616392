import type { TestProject } from 'vitest/node';
import { startDemo } from './shared-demo.js';

/**
 * Starts the demo that several test files share when all of them are going to be run: by the time they need it, it is
 * done. For a few files it is started by the first that asks.
 */
export default function startEarly({ vitest }: TestProject): (() => void) | undefined {
  // The names of files that the call asks for are not among what the runner declares.
  const { filenamePattern } = vitest as unknown as { readonly filenamePattern?: readonly string[] };
  if (filenamePattern && filenamePattern.length > 0) return undefined;
  return startDemo()?.stop;
}
