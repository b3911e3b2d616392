import { open } from 'node:fs/promises';
import { OutputError, messageOf } from '../../core/base/errors.js';
import { reportMark } from '../../output/html/report.js';
import { writeWhole } from '../../store/write-whole.js';

/** How far into a file its mark stands. */
const headBytes = 4_096;

/**
 * Writes a report; the file appears whole or not at all.
 *
 * @throws OutputError when a file is there that is no report, and `overwrite` does not say that it may go; or when it cannot be written.
 */
export async function writeReport(file: string, html: string, overwrite: boolean): Promise<void> {
  if (!overwrite && (await isForeign(file)))
    throw new OutputError(`${file} is there, and is not a report of this program`, {
      hint: 'name another file with --out, or add --overwrite',
    });
  try {
    await writeWhole(file, html);
  } catch (error) {
    throw new OutputError(`${file} cannot be written: ${messageOf(error)}`, {
      hint: 'name another file with --out',
      cause: error,
    });
  }
}

/** Whether a file is there that no report was written to. */
async function isForeign(file: string): Promise<boolean> {
  let handle;
  try {
    handle = await open(file, 'r');
  } catch {
    return false;
  }
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(headBytes), 0, headBytes, 0);
    return bytesRead > 0 && !buffer.toString('utf8', 0, bytesRead).includes(reportMark);
  } catch {
    // A folder, for example.
    return true;
  } finally {
    await handle.close();
  }
}
