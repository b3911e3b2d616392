import { readFile, readdir } from 'node:fs/promises';
import { join, relative, sep } from 'node:path';
import { keptAddress } from '../../../core/address/address.js';
import { NotFoundError, messageOf } from '../../../core/base/errors.js';
import { withBody } from '../../../core/trial/recording.js';
import type { Recording } from '../../../core/trial/recording.js';
import { changeEach, hasBody } from './fix.js';
import type { Fix, FixTools } from './fix.js';

export const files: Fix = {
  name: 'files',
  title: 'files of the folder that --files names, by their paths',
  unit: 'file',
  isOfBytes: false,
  isUsual: (tools) => tools.files !== null,
  apply: async (recording, tools) => {
    if (tools.files === null)
      return { recording, changed: 0, notes: ['needs a folder: give it with --files'] };
    const paths = await pathsIn(tools.files);
    const used = new Set<string>();
    const outcome = await changeEach(recording, hasBody, async (response) => {
      const path = pathFor(response.request.url, recording, paths);
      if (path === undefined) return null;
      used.add(path);
      return withBody(response, await stored(tools, path));
    });
    const unused = paths.size - used.size;
    return {
      ...outcome,
      notes:
        unused > 0
          ? [`${unused} of ${paths.size} files have a path that the page requests nothing from`]
          : [],
    };
  },
};

async function stored({ files: folder, keep }: FixTools, path: string) {
  return keep(await readFile(join(folder!, ...path.split('/'))));
}

/** The path of the file for an address: on the page's own host below the folder, on others below their name. */
function pathFor(url: string, { page }: Recording, paths: ReadonlySet<string>): string | undefined {
  if (!URL.canParse(url)) return undefined;
  const { pathname, host } = new URL(keptAddress(url));
  const path = decode(pathname.endsWith('/') ? `${pathname}index.html` : pathname).slice(1);
  const own = host === new URL(page).host;
  return [...(own ? [path] : []), `${host}/${path}`].find((one) => paths.has(one));
}

function decode(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}

async function pathsIn(folder: string): Promise<Set<string>> {
  try {
    const entries = await readdir(folder, { recursive: true, withFileTypes: true });
    return new Set(
      entries
        .filter((entry) => entry.isFile())
        .map((entry) => relative(folder, join(entry.parentPath, entry.name)))
        .map((path) => path.split(sep).join('/')),
    );
  } catch (error) {
    throw new NotFoundError(`the folder ${folder} cannot be read: ${messageOf(error)}`);
  }
}
