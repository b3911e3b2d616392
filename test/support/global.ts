import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Makes the folder in which test files share what takes long to make, and takes it away after the run. */
export default function shareFolder(): () => void {
  if (process.env['LYNX_TEST_SHARED'] !== undefined) return () => {};
  const folder = mkdtempSync(join(tmpdir(), 'lynx-run-'));
  process.env['LYNX_TEST_SHARED'] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}
