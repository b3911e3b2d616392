import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { NotFoundError, UsageError, messageOf } from '../../core/base/errors.js';
import { untrustedObject } from '../../core/base/untrusted.js';

/**
 * One of the JSON papers in the folder of a refit.
 *
 * @throws NotFoundError, UsageError when the folder is none, or was written by another version.
 */
export async function refitPaper(folder: string, name: string, format: string) {
  const file = join(folder, name);
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch (error) {
    throw new NotFoundError(`${folder} is not the folder of a refit: ${messageOf(error)}`, {
      hint: 'give --refit the folder that refit wrote with --out',
    });
  }
  let parsed: ReturnType<typeof untrustedObject> = {};
  try {
    parsed = untrustedObject(JSON.parse(text));
  } catch {
    // It has no format then, either.
  }
  if (parsed['format'] !== format)
    throw new UsageError(`${file} is not what a refit of this version writes`, {
      hint: 'run refit again',
    });
  return parsed;
}
