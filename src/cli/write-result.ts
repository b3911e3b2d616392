import { messageOf, OutputError } from '../core/base/errors.js';

/**
 * Writes what was asked for into a file, whole or not at all.
 *
 * @param option the option that named the file
 * @throws OutputError when it cannot be written.
 */
export async function writeResult(
  path: string,
  content: string | Buffer,
  option: string,
): Promise<void> {
  const { writeWhole } = await import('../store/write-whole.js');
  try {
    await writeWhole(path, content);
  } catch (error) {
    throw new OutputError(`${path} cannot be written: ${messageOf(error)}`, {
      hint: `name another file with ${option}`,
      cause: error,
    });
  }
}
