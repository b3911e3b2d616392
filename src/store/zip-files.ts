import { createWriteStream } from 'node:fs';
import { makeFolder } from '../system/make-folder.js';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { asWhole } from './write-whole.js';

/** Pictures are stored, because they hardly compress; texts are compressed. */
const packed = /\.(?:json|csv|md|html|css|svg)$/;

/**
 * Packs files of a folder into a ZIP file, which appears whole or not at all.
 *
 * @param paths below the folder, with `/`
 */
export async function zipFiles(
  folder: string,
  paths: readonly string[],
  target: string,
): Promise<void> {
  const zip = new ZipFile();
  for (const path of paths) zip.addFile(join(folder, path), path, { compress: packed.test(path) });
  zip.end();
  makeFolder(dirname(target));
  await asWhole(target, (draft) => pipeline(zip.outputStream, createWriteStream(draft)));
}
